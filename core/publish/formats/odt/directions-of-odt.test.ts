import { expect, test } from "@jest/globals";
import { strFromU8, unzipSync } from "fflate";
import { prove } from "../../../proof/prove.ts";
import { bookOf } from "../../../test/sample-book.ts";
import { readOdt } from "./read-back.ts";
import { writeOdt } from "./write-odt.ts";

const foreign =
  "# גאות\n\nמים\n\n## Low water\n\nThe sands lie bare, see [the office](https://tides.example/).\n";

/** The direction that each paragraph and heading of a document has by its style, in their order, and that of the document. */
function directionsIn(bytes: Uint8Array): { document: string; blocks: (string | null)[] } {
  const files = unzipSync(bytes);
  const [content, styles] = ["content.xml", "styles.xml"].map((name) => strFromU8(files[name]!));
  const own = new Map(
    [
      ...content!.matchAll(/<style:style style:name="(P\d+)"[^>]*><style:paragraph-properties ([^>]*)\/>/g),
    ].map(([, name, properties]) => [name, /writing-mode="([^"]*)"/.exec(properties!)?.[1] ?? null]),
  );
  const [, document = ""] = /<style:default-style .*?writing-mode="([^"]*)"/.exec(styles!) ?? [];
  const blocks = [...content!.matchAll(/<text:[ph] text:style-name="([^"]*)"/g)];
  return { document, blocks: blocks.map(([, name]) => own.get(name) ?? null) };
}

test.each([
  ["he", "rl-tb", [null, null, null, null, "lr-tb", "lr-tb"]],
  ["en", "lr-tb", [null, null, "rl-tb", "rl-tb", null, null]],
])("in a book in “%s” blocks go %s, and others as their words do", (language, document, blocks) => {
  const book = bookOf(foreign, { language });
  const { bytes } = writeOdt(book, "walks.odt");
  // The book's title and author stand before the text.
  expect(directionsIn(bytes)).toEqual({ document, blocks });
  expect(prove(book, readOdt(bytes))).toMatchObject({ complete: true, faults: [] });
});
