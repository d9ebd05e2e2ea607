import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { changedBlocks, withChangedBlocks } from "./changed-blocks.ts";
import { readChapter, writeChapter } from "./chapter.ts";
import { schema } from "./schema.ts";

const title = schema.node("title", { id: "sound" }, [schema.text("Hesterley Sound")]);
const paragraph = (words: string) => schema.node("paragraph", null, words === "" ? [] : [schema.text(words)]);
const chapter = (...words: string[]) => schema.node("doc", null, [title, ...words.map(paragraph)]);

/** The document as another process has it, to which nothing of this one's objects comes. */
const copyOf = (doc: ReturnType<typeof chapter>) =>
  readChapter(JSON.parse(JSON.stringify(writeChapter(doc))));

test("a letter that is typed sends its paragraph alone, and leaves all others the same objects", () => {
  const before = chapter("The ebb", "The flood", "Slack water");
  const after = before.copy(before.content.replaceChild(2, paragraph("The floods")));
  const change = changedBlocks(before, after);
  expect(change).toEqual({ from: 2, count: 1, blocks: [paragraph("The floods").toJSON()] });

  const there = copyOf(before);
  const then = withChangedBlocks(there, change);
  expect(then.eq(after)).toBe(true);
  expect(then.child(1)).toBe(there.child(1));
  expect(then.child(3)).toBe(there.child(3));
});

test("after any edits the other process has the same text", () => {
  // Each edit puts some paragraphs in the place of others, of which some are the same objects twice.
  const edit = fc.record({
    at: fc.nat(8),
    out: fc.nat(3),
    in: fc.array(fc.constantFrom("", "ebb", "flood")),
  });
  fc.assert(
    fc.property(fc.array(edit, { minLength: 1 }), (edits) => {
      let here = chapter("one", "two", "three");
      let there = copyOf(here);
      for (const { at, out, in: words } of edits) {
        const blocks = here.children.slice(1);
        const again = blocks.slice(0, 1);
        blocks.splice(at, out, ...words.map(paragraph), ...again);
        const next = schema.node("doc", null, [title, ...blocks]);
        const change = changedBlocks(here, next);
        there = withChangedBlocks(there, JSON.parse(JSON.stringify(change)) as typeof change);
        expect(there.eq(next)).toBe(true);
        here = next;
      }
    }),
  );
});

test("a block that does not fit the schema is refused", () => {
  const there = chapter("one");
  const blocks = [{ type: "paragraph", content: [{ type: "heading", attrs: { id: "h", level: 1 } }] }];
  expect(() => withChangedBlocks(there, { from: 1, count: 1, blocks })).toThrow(RangeError);
});
