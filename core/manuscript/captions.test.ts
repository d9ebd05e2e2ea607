import { expect, test } from "@jest/globals";
import { caption, chapter, table, text } from "../test/book-of-places.ts";
import { captionedBlocks } from "./captions.ts";
import { schema } from "./schema.ts";

const picture = () => schema.node("paragraph", null, [schema.node("picture", { alt: "A" })]);
const shape = (...blocks: Parameters<typeof chapter>[2][]) =>
  captionedBlocks(chapter("c", "C", ...blocks))
    .slice(1)
    .map(({ node, caption: own, captionFirst }) =>
      own
        ? captionFirst
          ? `${own.textContent} over ${node.type.name}`
          : `${own.textContent} under ${node.type.name}`
        : node.type.name,
    );

test("a caption is that of the picture before it, or of the table before or after it", () => {
  expect(shape(picture(), caption("k", "figure", "F"))).toEqual(["F under paragraph"]);
  expect(shape(table("x"), caption("k", "table", "T"))).toEqual(["T under table"]);
  expect(shape(text("x"), caption("k", "table", "T"), table("x"))).toEqual(["paragraph", "T over table"]);
  expect(shape(table("x"), caption("k", "table", "T"), table("y"))).toEqual(["T under table", "table"]);
});

test("a caption about nothing stands alone, and nothing has two", () => {
  expect(shape(text("words"), caption("k", "figure", "F"))).toEqual(["paragraph", "caption"]);
  expect(shape(picture(), caption("k", "table", "T"))).toEqual(["paragraph", "caption"]);
  expect(shape(picture(), caption("k", "figure", "F"), caption("l", "figure", "G"))).toEqual([
    "F under paragraph",
    "caption",
  ]);
});

test("a block ends where its caption ends", () => {
  const doc = chapter("c", "C", table("x"), caption("k", "table", "T"), text("after"));
  const ends = captionedBlocks(doc).map(({ end }) => end);
  expect(ends.at(-1)).toBe(doc.content.size);
  expect(ends[1]).toBe(doc.content.size - doc.lastChild!.nodeSize);
});
