import { expect, test } from "@jest/globals";
import { strFromU8, unzipSync } from "fflate";
import { readChapter, writeChapter } from "../../../manuscript/chapter.ts";
import { prove } from "../../../proof/prove.ts";
import { bookOf } from "../../../test/sample-book.ts";
import { readDocx } from "./read-back.ts";
import { writeDocx } from "./write-docx.ts";

// Words by which the library that writes the document calls numbers of pages.
const words = ["CURRENT", "TOTAL_PAGES", "TOTAL_PAGES_IN_SECTION", "SECTION"];

/** The words of a document, its tabs and its lines. */
function textOf(bytes: Uint8Array): string {
  const xml = strFromU8(unzipSync(bytes)["word/document.xml"]!);
  return [...xml.matchAll(/<w:t(?: [^>]*)?>([^<]*)<\/w:t>|<w:(tab|br)\/>|<\/w:p>/g)]
    .map(([whole, text]) => text ?? (whole === "<w:tab/>" ? "\t" : "\n"))
    .join("");
}

test("every word is a word of the document, whatever the library calls so", async () => {
  const lines = words.map((word) => `\`${word}\` and [${word}](https://tides.example/${word}) as well`);
  const listing = "```\n\tSECTION\nCURRENT\tSECTION\n```";
  const book = bookOf(`# One\n\n${[...words, ...lines, listing].join("\n\n")}\n`);
  const { bytes } = await writeDocx(book, "walks.docx");
  expect(prove(book, readDocx(bytes))).toMatchObject({ complete: true, intact: words.length, faults: [] });
  const text = textOf(bytes);
  for (const word of words) expect(text).toContain(`\n${word}\n`);
  for (const word of words) expect(text).toContain(`\n${word} and ${word} as well\n`);
  expect(text).toContain("\n\tSECTION\nCURRENT\tSECTION\n");
});

test("words of links have their tabs", async () => {
  const spaced = bookOf("# One\n\nSee [low water](https://tides.example/low) today.\n");
  const [chapter] = spaced.chapters;
  const json = JSON.stringify(writeChapter(chapter!.doc)).replace("low water", "low\\twater");
  const book = { ...spaced, chapters: [{ ...chapter!, doc: readChapter(JSON.parse(json)) }] };
  const { bytes } = await writeDocx(book, "walks.docx");
  expect(textOf(bytes)).toContain("low\twater");
  expect(prove(book, readDocx(bytes))).toMatchObject({ complete: true, intact: 1, faults: [] });
});
