import { expect, test } from "@jest/globals";
import fc from "fast-check";
import type { Node } from "prosemirror-model";
import { Transform } from "prosemirror-transform";
import { generatedBook } from "../test/generated-book.ts";
import { bringIn } from "../test/sample-book.ts";
import { changeLinks, type LinkEffect } from "./change-links.ts";
import { changeLink, unlink } from "./edit-links.ts";
import { linkUses } from "./links.ts";

const web = (path: string) => ({ kind: "web" as const, address: `https://tides.example/${path}` });
const effects: LinkEffect[] = [
  null,
  "remove",
  { text: "the tide office" },
  { description: "By day" },
  { destination: web("moved") },
  { destination: { kind: "place", target: "elsewhere" } },
  { trim: true },
  { text: "low water", destination: web(""), description: null },
];

/** From the last link to the first, each by itself. */
function oneByOne(doc: Node, effectOn: (ordinal: number) => LinkEffect): Node {
  const change = new Transform(doc);
  const uses = linkUses(doc);
  for (let i = uses.length - 1; i >= 0; i--) {
    const effect = effectOn(i);
    if (effect === "remove") unlink(change, uses[i]!);
    else if (effect !== null) changeLink(change, uses[i]!, effect);
  }
  return change.doc;
}

test("many links are changed at once as each would be by itself", () => {
  let changed = 0;
  fc.assert(
    fc.property(
      generatedBook,
      fc.array(fc.constantFrom(...effects), { minLength: 1, maxLength: 20 }),
      ({ chapters }, drawn) => {
        const effectOn = (ordinal: number): LinkEffect => drawn[ordinal % drawn.length]!;
        for (const { doc } of chapters) {
          const { doc: after, count } = changeLinks(doc, (_, ordinal) => effectOn(ordinal));
          changed += count;
          expect(after.toJSON()).toEqual(oneByOne(doc, effectOn).toJSON());
          after.check();
        }
      },
    ),
    { numRuns: 200 },
  );
  expect(changed).toBeGreaterThan(200);
});

test("a link over paragraphs gets its new words where it began", () => {
  const doc = bringIn("# T\n\nSee [the one](https://a.example/) and [the other](https://b.example/).")
    .chapters[0]!;
  const change = new Transform(doc);
  const [, other] = linkUses(doc);
  change.split(other!.from + 4);
  const { doc: after } = changeLinks(change.doc, (_, ordinal) => (ordinal === 1 ? { text: "x" } : null));
  expect(linkUses(after).map(({ text }) => text)).toEqual(["the one", "x"]);
  expect(after.toJSON()).toEqual(oneByOne(change.doc, (i) => (i === 1 ? { text: "x" } : null)).toJSON());
});

test("where no link changes the document is the same one", () => {
  const doc = bringIn("# T\n\n[a](https://a.example/)").chapters[0]!;
  expect(changeLinks(doc, () => null)).toEqual({ doc, count: 0 });
});
