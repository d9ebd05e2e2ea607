import { expect, test } from "@jest/globals";
import { Transform } from "prosemirror-transform";
import { bringIn } from "../test/sample-book.ts";
import { findMentions } from "./mentions.ts";
import { anchorAt, placeAt, putAnchor, removeAnchor, renameAnchor } from "./edit-anchors.ts";
import { placesOf } from "./outline.ts";

const doc = bringIn('# One\n\nBefore <a id="low water"></a>after.').chapters[0]!;
const id = placesOf(doc).find(({ kind }) => kind === "anchor")!.id;

// Common practice: renaming an anchor never changes the words that the reader sees.
test("any name will do, the id stays, and the reader's words with it", () => {
  const change = new Transform(doc);
  for (const name of ["low-water mark", "Niedrigwasser – Süd", "干潮", " "]) {
    renameAnchor(change, id, name);
    expect(placesOf(change.doc).find((place) => place.id === id)).toMatchObject({ text: name });
    expect(change.doc.textContent).toBe(doc.textContent);
    change.doc.check();
  }
});

test("an anchor is taken out without the text around it", () => {
  const change = new Transform(doc);
  removeAnchor(change, id);
  expect(anchorAt(change.doc, id)).toBeNull();
  expect(change.doc.textContent).toBe(doc.textContent);
  expect(() => removeAnchor(change, id)).toThrow(expect.objectContaining({ code: "anchor" }));
});

test("an anchor is put before words and named by them; where a place stands, it is that", () => {
  const tides = bringIn("# Tides\n\n## Low water\n\nWade **at low** water.\n\n```\nlow water\n```")
    .chapters[0]!;
  const [inHeading, inText] = findMentions(tides, "low water", { wholeWords: true, matchCase: false });
  expect([inHeading!.place, inText!.place]).toEqual([tides.child(1).attrs["id"], null]);
  const change = new Transform(tides);
  putAnchor(change, inText!.from, inText!.to, "aaaaaaaaaaaa");
  change.doc.check();
  expect(change.doc.textContent).toBe(tides.textContent);
  expect(placesOf(change.doc).at(-1)).toMatchObject({ id: "aaaaaaaaaaaa", text: "low water" });
  expect(placeAt(change.doc, inText!.from + 1)).toBe("aaaaaaaaaaaa");
  expect(placeAt(change.doc, inText!.from)).toBeNull();
  const noPlace = expect.objectContaining({ code: "anchor" });
  // In a listing, between blocks, and outside of the chapter.
  for (const [from, to] of [
    [tides.content.size - 3, tides.content.size - 2],
    [0, 0],
    [3, 9_000],
  ] as const)
    expect(() => putAnchor(new Transform(tides), from, to, "bbbbbbbbbbbb")).toThrow(noPlace);
});

test("each place tells the words that stand there", () => {
  const chapter = bringIn(
    `# Tides\n\n## Low\n\nThe sea ${"goes ".repeat(40)}\n\n- a <a id="x"></a>point\n\n## End`,
  ).chapters[0]!;
  expect(placesOf(chapter).map(({ text, context }) => [text, context.slice(0, 12), context.length])).toEqual([
    ["Tides", "The sea goes", 80],
    ["Low", "The sea goes", 80],
    ["x", "point", 5],
    ["End", "", 0],
  ]);
});
