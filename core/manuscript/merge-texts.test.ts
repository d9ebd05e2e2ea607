import { expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Node } from "prosemirror-model";
import { mergeTexts } from "./merge-texts.ts";
import { schema } from "./schema.ts";

const paragraph = (words: string): Node =>
  schema.node("paragraph", null, words === "" ? [] : [schema.text(words)]);
const note = (id: string, words: string): Node => schema.node("note", { id }, [paragraph(words)]);
const text = (title: string, ...blocks: (string | Node)[]): Node =>
  schema.node("doc", null, [
    schema.node("title", { id: "top" }, [schema.text(title)]),
    ...blocks.map((one) => (typeof one === "string" ? paragraph(one) : one)),
  ]);
const words = (doc: Node | null): string[] | null => doc && doc.children.map((node) => node.textContent);

test("what each changed, put in and took out is in the one text of both", () => {
  const base = text("Tides", "One.", "Two.", "Three.", "Four.");
  const mine = text("Tides", "One, mine.", "Two.", "Between.", "Three.", "Four.");
  const theirs = text("Low tides", "One.", "Two.", "Four, theirs.");
  expect(words(mergeTexts(base, mine, theirs))).toEqual([
    "Low tides",
    "One, mine.",
    "Two.",
    "Between.",
    "Four, theirs.",
  ]);
});

test("the same change by both is made once; different ones of a block are for the author to choose from", () => {
  const base = text("Tides", "One.", "Two.");
  expect(words(mergeTexts(base, text("Tides", "1.", "Two."), text("Tides", "1.", "Two!")))).toEqual([
    "Tides",
    "1.",
    "Two!",
  ]);
  expect(mergeTexts(base, text("Tides", "1.", "Two."), text("Tides", "Uno.", "Two."))).toBeNull();
  expect(mergeTexts(base, text("Tides", "1.", "Two."), text("Tides", "Two."))).toBeNull();
});

test("what both put at the end stands after each other, notes behind the text", () => {
  const base = text("Tides", "One.");
  const mine = text("Tides", "One.", "Mine.", note("mine", "My note."));
  const theirs = text("Tides", "One.", "Theirs.", note("theirs", "Their note."));
  expect(words(mergeTexts(base, mine, theirs))).toEqual([
    "Tides",
    "One.",
    "Theirs.",
    "Mine.",
    "Their note.",
    "My note.",
  ]);
});

test("a place that both copied is one place only", () => {
  const heading = (words_: string): Node =>
    schema.node("heading", { id: "same", level: 1 }, [schema.text(words_)]);
  const base = text("Tides", "One.", "Two.");
  const merged = mergeTexts(
    base,
    text("Tides", heading("Mine"), "One.", "Two."),
    text("Tides", "One.", "Two.", heading("Theirs")),
  );
  const ids = merged!.children.flatMap((node) =>
    node.type.name === "heading" ? [node.attrs["id"] as string] : [],
  );
  expect(new Set(ids).size).toBe(2);
});

test("edits of different blocks are all there, whatever they are; either side alone is taken as it is", () => {
  const edit = fc.array(fc.tuple(fc.nat(11), fc.constantFrom("change", "delete", "before")), {
    maxLength: 6,
  });
  fc.assert(
    fc.property(edit, edit, (own, others) => {
      const base = Array.from({ length: 12 }, (_, i) => `Block ${i}.`);
      const mineAt = new Set(own.map(([at]) => at));
      const apart = others.filter(([at]) => ![at - 1, at, at + 1].some((near) => mineAt.has(near)));
      const edited = (who: string, edits: typeof own): string[][] => {
        const blocks = base.map((one) => [one]);
        for (const [at, kind] of edits)
          blocks[at] =
            kind === "change" ? [`${who} ${at}.`] : kind === "delete" ? [] : [`${who} new ${at}.`, base[at]!];
        return blocks;
      };
      const [mine, theirs] = [edited("Mine", own), edited("Theirs", apart)];
      const whole = (blocks: string[][]): Node => text("T", ...blocks.flat());
      const both = base.map((_, at) => (mineAt.has(at) ? mine[at]! : theirs[at]!));
      const before = text("T", ...base);
      expect(words(mergeTexts(before, whole(mine), whole(theirs)))).toEqual(words(whole(both)));
      expect(words(mergeTexts(before, whole(mine), before))).toEqual(words(whole(mine)));
    }),
  );
});
