import { expect, test } from "@jest/globals";
import type { Node } from "prosemirror-model";
import { chapterTitle } from "../manuscript/chapter.ts";
import { largestChapter } from "../manuscript/chapter-size.ts";
import { linkUses } from "../manuscript/links.ts";
import { schema } from "../manuscript/schema.ts";
import { bring } from "../test/brought.ts";
import { partLongChapters } from "./part-long-chapters.ts";

const page = (body: string) =>
  new TextEncoder().encode(
    `<!doctype html><html lang="en"><title>Sound</title><body><h1>Sound</h1>${body}</body></html>`,
  );
const many = (count: number, one: (i: number) => string) =>
  Array.from({ length: count }, (_, i) => one(i)).join("");
const words = "Low water bares the stone, and whoever walks keeps to its seaward edge. ".repeat(8);
const bytesOf = (doc: Node) => new TextEncoder().encode(JSON.stringify(doc)).length;
const title = schema.node("title", { id: "sound" }, schema.text("Sound"));
const firstOf = (doc: Node) => doc.child(1);

test("a chapter that could not be saved is parted before its headings, and says so", async () => {
  const { chapters, roles, leftOut, arrival } = await bring(
    page(
      many(
        600,
        (i) =>
          `<h2 id="s${i}">Stretch ${i}</h2><p>${words}<a href="#s${(i * 7) % 600}">way ${i}</a></p>` +
          `<p>See <a href="#e${(i * 7) % 600}">its end ${i}</a></p>` +
          `<h3>Below ${i}</h3><p>${words.repeat(9)}<a id="e${i}"></a>.</p>`,
      ),
    ),
  );
  expect(chapters.map(chapterTitle)).toEqual(["Sound", "Sound (2)"]);
  expect(roles).toEqual(["chapter", "chapter"]);
  for (const doc of chapters.slice(1)) {
    expect(firstOf(doc).type.name).toBe("heading");
    expect(firstOf(doc).attrs["level"]).toBe(1);
  }
  for (const doc of chapters) expect(bytesOf(doc)).toBeLessThan(0.75 * largestChapter);
  expect(leftOut).toContainEqual(expect.objectContaining({ sort: "Long chapters", what: "Sound" }));
  expect(arrival!.counts).toMatchObject({ intact: 1200, lost: 0, extra: 0, changed: 0 });
});

test("notes go with what calls them, and no link is cut", () => {
  const link = schema.mark("link", {
    id: "across",
    destination: { kind: "web", address: "https://tides.hesterley.example/" },
  });
  const paragraph = (...content: Node[]) => schema.node("paragraph", null, content);
  const called = (i: number) =>
    paragraph(schema.text(words.repeat(20)), schema.node("note_reference", { note: `n${i}` }));
  const note = (i: number) => schema.node("note", { id: `n${i}` }, [paragraph(schema.text(`Note ${i}.`))]);
  // From where the first part would end to well behind it one link runs on.
  const across = Array.from({ length: 120 }, () => paragraph(schema.text(words.repeat(20), [link])));
  const before = Array.from({ length: 160 }, (_, i) => called(i));
  const behind = Array.from({ length: 160 }, (_, i) => called(160 + i));
  const all = Array.from({ length: 320 }, (_, i) => note(i));
  const doc = schema.node("doc", null, [title, ...before, ...across, ...behind, ...all]);

  const { chapters } = partLongChapters([doc], ["chapter"]);
  expect(chapters.length).toBeGreaterThan(1);
  expect(chapters.flatMap((one) => linkUses(one))).toHaveLength(1);
  for (const one of chapters) {
    const [calls, notes]: [string[], string[]] = [[], []];
    one.descendants(({ type, attrs }) => {
      if (type.name === "note_reference") calls.push(attrs["note"] as string);
      if (type.name === "note") notes.push(attrs["id"] as string);
    });
    expect(notes).toEqual(calls);
    one.check();
  }
});

test("a list that is too long goes on with its numbers in the next chapter", () => {
  const item = schema.node("list_item", null, [
    schema.node("paragraph", null, schema.text(words.repeat(10))),
  ]);
  const list = schema.node(
    "ordered_list",
    { start: 5 },
    Array.from({ length: 600 }, () => item),
  );
  const { chapters } = partLongChapters([schema.node("doc", null, [title, list])], ["chapter"]);
  expect(chapters).toHaveLength(2);
  const [first, second] = chapters.map(firstOf);
  expect(second!.attrs["start"]).toBe(5 + first!.childCount);
  expect(first!.childCount + second!.childCount).toBe(600);
});

test("what nothing parts is told, and any other chapter is as it was", () => {
  const of = (text: string) =>
    schema.node("doc", null, [title, schema.node("paragraph", null, schema.text(text))]);
  const short = of(words);
  const long = of(words.repeat(9_000));
  const { chapters, leftOut } = partLongChapters([short, long], ["chapter", "chapter"]);
  expect(chapters[0]).toBe(short);
  expect(chapters[1]).toBe(long);
  expect(leftOut).toEqual([
    expect.objectContaining({ sort: "Long chapters", why: expect.stringContaining("nowhere to part it") }),
  ]);
});
