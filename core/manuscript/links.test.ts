import { expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Node } from "prosemirror-model";
import { generatedBook } from "../test/generated-book.ts";
import { linkUses } from "./links.ts";
import { schema } from "./schema.ts";

/** The same text as nodes of which nothing is known. */
const anew = (doc: Node): Node => schema.nodeFromJSON(doc.toJSON());

test("links of which only some have changed or moved are those of the whole text read anew", () => {
  const edits = fc.array(
    fc.record({ at: fc.nat(1_000), does: fc.constantFrom("type", "repeat", "drop", "swap") }),
    { maxLength: 4 },
  );
  fc.assert(
    fc.property(generatedBook, edits, ({ chapters }, all) => {
      for (const { doc } of chapters) {
        let edited = doc;
        linkUses(edited);
        for (const { at, does } of all) {
          const blocks = [...edited.children];
          const i = 1 + (at % (blocks.length - 1));
          const block = blocks[i]!;
          if (does === "type" && block.isTextblock)
            blocks[i] = block.copy(block.content.addToStart(schema.text("typed ")));
          if (does === "repeat") blocks.splice(i, 0, block);
          if (does === "drop") blocks.splice(i, 1);
          if (does === "swap") blocks.push(blocks.splice(i, 1)[0]!);
          if (blocks.length < 2) continue;
          edited = edited.type.create(null, blocks);
          expect(linkUses(edited)).toEqual(linkUses(anew(edited)));
        }
      }
    }),
    { numRuns: 60 },
  );
});

test("a link that goes on in the next paragraph is one, and two again when something comes between", () => {
  const link = schema.mark("link", { id: "l", destination: { kind: "web", address: "https://a.example/" } });
  const words = (said: string): Node => schema.node("paragraph", null, [schema.text(said, [link])]);
  const title = schema.node("title", { id: "t" }, [schema.text("T")]);
  const [first, second] = [words("over the"), words("long sands")];
  const whole = schema.node("doc", null, [title, first, second]);
  expect(linkUses(whole).map(({ text, parts }) => [text, parts.length])).toEqual([
    ["over the long sands", 2],
  ]);
  const plain = schema.node("paragraph", null, [schema.text("between")]);
  const parted = schema.node("doc", null, [title, first, plain, second]);
  expect(linkUses(parted).map(({ text }) => text)).toEqual(["over the", "long sands"]);
  // What was read of the paragraphs before is as it was.
  expect(linkUses(schema.node("doc", null, [title, first])).map(({ text }) => text)).toEqual(["over the"]);
});
