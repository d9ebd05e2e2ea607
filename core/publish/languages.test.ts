import { expect, test } from "@jest/globals";
import { strFromU8, unzipSync } from "fflate";
import { languageOf } from "../manuscript/language.ts";
import { bookOf, bringIn } from "../test/sample-book.ts";
import { writeDocx } from "./formats/docx/write-docx.ts";
import { writeEpub } from "./formats/epub/write-epub.ts";
import { writeMarkdown } from "./formats/markdown/write-markdown.ts";
import { typesetBook } from "./formats/pdf/typeset-book.ts";
import { writeWebPage } from "./formats/web/web-page.ts";

const markdown = `# Mottos

The motto <span lang="fr-CA">à marée basse</span> and [<i lang="zh-hant-tw">潮汐</i>](https://a.example/).

<p lang="la">Fluctuat nec mergitur.</p>

<div lang="he">

שלום

- עולם

</div>`;
const book = bookOf(markdown, { language: "sr-Latn-RS" });

const told = (doc: (typeof book.chapters)[number]["doc"]): [string | undefined, string | null][] => {
  const found: [string | undefined, string | null][] = [];
  doc.descendants((node) => {
    if (node.isText && languageOf(node) !== null) found.push([node.text, languageOf(node)]);
  });
  return found;
};
const expected = [
  ["à marée basse", "fr-CA"],
  ["潮汐", "zh-Hant-TW"],
  ["Fluctuat nec mergitur.", "la"],
  ["שלום", "he"],
  ["עולם", "he"],
];

// WCAG 2.2, success criterion 3.1.2: the language of each passage can be programmatically determined.
test("words in other languages are read from a manuscript, and come back from Markdown", () => {
  expect(told(book.chapters[0]!.doc)).toEqual(expected);
  const { bytes } = writeMarkdown(book, "m.md");
  expect(told(bringIn(new TextDecoder().decode(bytes)).chapters[0]!)).toEqual(expected);
});

test("web pages and e-books say it of each passage, and of the whole", () => {
  const page = new TextDecoder().decode(writeWebPage(book));
  expect(page).toContain('<html lang="sr-Latn-RS" dir="ltr">');
  expect(page).toContain('<span lang="fr-CA">à marée basse</span>');
  const files = unzipSync(writeEpub(book, { fonts: [], pages: null }));
  const text = Object.entries(files).flatMap(([name, bytes]) =>
    name.endsWith(".xhtml") ? [strFromU8(bytes)] : [],
  );
  expect(text.join("")).toContain('<span lang="zh-Hant-TW" xml:lang="zh-Hant-TW">潮汐</span>');
  expect(strFromU8(files["EPUB/package.opf"]!)).toContain("<dc:language>sr-Latn-RS</dc:language>");
});

test("a text document says it of each run (ECMA-376-1, 17.3.2.20)", async () => {
  const { bytes } = await writeDocx(book, "d.docx");
  const document = strFromU8(unzipSync(bytes)["word/document.xml"]!);
  for (const [words, tag] of expected)
    expect(document).toMatch(new RegExp(`<w:lang w:val="${tag}"[^>]*/></w:rPr><w:t[^>]*>${words}`));
});

test("the typesetter is told of each, with the fonts of its country", () => {
  const { files, languages } = typesetBook(book);
  const { fonts } = JSON.parse(files.get("/book.json")!) as { fonts: { scripts: string[][] } };
  const chapter = files.get("/chapter-1.json")!;
  const [, number] = /"letters":"潮汐","fonts":(\d+)/.exec(chapter)!;
  expect(fonts.scripts[Number(number)]![0]).toBe("Noto Serif CJK TC");
  expect(chapter).toContain('"language":{"lang":"fr","region":"CA","tag":"fr-CA"}');
  expect(Object.fromEntries(languages)).toMatchObject({
    "sr-RS": "sr-Latn-RS",
    "zh-TW": "zh-Hant-TW",
    la: "la",
  });
});
