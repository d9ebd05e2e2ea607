import { expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Node } from "prosemirror-model";
import { generatedBook } from "../test/generated-book.ts";
import { nodeAt, nodesBetween, resolved, textBetween } from "./positions.ts";
import { schema } from "./schema.ts";

const words = (text: string) => schema.text(text);
const item = (text: string) => schema.node("list_item", null, [schema.node("paragraph", null, words(text))]);
/** More blocks and items than are gone through one by one. */
const long = schema.node("doc", null, [
  schema.node("title", { id: "sound" }, words("Hesterley Sound")),
  ...Array.from({ length: 40 }, (_, i) => schema.node("paragraph", null, words(`Stone ${i}`))),
  schema.node(
    "bullet_list",
    null,
    Array.from({ length: 40 }, (_, i) => item(`Ford ${i}`)),
  ),
  schema.node("paragraph"),
]);

/** Compares all that is told of each position, and of stretches from it, with what the document itself tells. */
function compare(doc: Node, lengths: readonly number[]): void {
  for (let at = 0; at <= doc.content.size; at++) {
    const own = doc.resolve(at);
    const told = resolved(doc, at);
    if (told.parent !== own.parent || nodeAt(doc, at) !== doc.nodeAt(at))
      throw new Error(`Another node at ${at}`);
    expect([told.offset, told.index]).toEqual([own.parentOffset, own.index()]);
    expect([told.before?.type.name, told.after?.type.name]).toEqual([
      own.nodeBefore?.type.name,
      own.nodeAfter?.type.name,
    ]);
    for (const length of lengths) {
      const to = Math.min(at + length, doc.content.size);
      expect(textBetween(doc, at, to, "\n", "*")).toBe(doc.textBetween(at, to, "\n", "*"));
      const [mine, theirs]: [string[], string[]] = [[], []];
      nodesBetween(doc, at, to, (node, position) => {
        if (node.isInline) mine.push(`${position} ${node.toString()}`);
      });
      doc.nodesBetween(at, to, (node, position) => {
        if (node.isInline) theirs.push(`${position} ${node.toString()}`);
      });
      expect(mine).toEqual(theirs);
    }
  }
}

test("what is looked up in a long chapter is what the document tells of itself", () => {
  compare(long, [0, 1, 3, 12, 60]);
});

test("what is looked up in any chapter is what the document tells of itself", () => {
  fc.assert(
    fc.property(generatedBook, ({ chapters }) => compare(chapters[0]!.doc, [0, 1, 7])),
    { numRuns: 12 },
  );
});
