import { expect, test } from "@jest/globals";
import { strFromU8, unzipSync } from "fflate";
import { bookOf } from "../test/sample-book.ts";
import { writeEpub } from "./formats/epub/write-epub.ts";
import { typesetBook } from "./formats/pdf/typeset-book.ts";
import { writeWebPage } from "./formats/web/web-page.ts";

const markdown =
  "# راه کشند\n\nراه باز است.\n\nAn English paragraph.\n\n- A list\n\n`npm`\n\n    code\n\n| a |\n| - |\n| b |";
const persian = bookOf(markdown, { language: "fa-IR", title: "راه" });
const english = bookOf(markdown);

test("an e-book from right to left turns its pages so, and says so of every page (EPUB 3.3, 5.4.1 and 5.7.1)", () => {
  const files = unzipSync(writeEpub(persian, { fonts: [], pages: null }));
  expect(strFromU8(files["EPUB/package.opf"]!)).toContain('<spine page-progression-direction="rtl">');
  for (const [name, bytes] of Object.entries(files))
    if (name.endsWith(".xhtml"))
      expect([name, strFromU8(bytes)]).toEqual([
        name,
        expect.stringMatching(/<html [^>]*lang="fa-IR" dir="rtl">/),
      ]);
  const ltr = unzipSync(writeEpub(english, { fonts: [], pages: null }));
  expect(strFromU8(ltr["EPUB/package.opf"]!)).toContain('<spine page-progression-direction="ltr">');
});

test("what is read in the other direction than the book says so, and a listing goes from left to right", () => {
  const rtl = new TextDecoder().decode(writeWebPage(persian));
  expect(rtl).toContain('<html lang="fa-IR" dir="rtl">');
  expect(rtl).toContain("<p>راه باز است.</p>");
  for (const part of [
    '<p dir="ltr">An English',
    '<ul dir="ltr">',
    '<code dir="ltr">npm',
    '<pre dir="ltr">',
    '<table dir="ltr">',
  ])
    expect(rtl).toContain(part);
  const ltr = new TextDecoder().decode(writeWebPage(english));
  expect(ltr).toContain('<p dir="rtl">راه باز است.</p>');
  for (const part of ["<p>An English", "<ul>", "<code>npm", "<pre>"]) expect(ltr).toContain(part);
});

test("the typesetter is told the book's direction, and of each block that is read in the other", () => {
  const { files } = typesetBook(persian);
  expect(JSON.parse(files.get("/book.json")!)).toMatchObject({ direction: "rtl" });
  const { blocks } = JSON.parse(files.get("/chapter-1.json")!) as {
    blocks: { kind: string; direction?: string }[];
  };
  expect(blocks.map(({ kind, direction }) => `${kind} ${direction ?? "-"}`)).toEqual([
    "heading -",
    "paragraph -",
    "paragraph ltr",
    "bullets ltr",
    "paragraph ltr",
    "listing ltr",
    "table ltr",
  ]);
});
