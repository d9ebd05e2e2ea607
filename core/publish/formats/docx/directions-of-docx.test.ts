import { expect, test } from "@jest/globals";
import { strFromU8, unzipSync } from "fflate";
import { prove } from "../../../proof/prove.ts";
import { bookOf } from "../../../test/sample-book.ts";
import { withDirections } from "./directions-of-docx.ts";
import { readDocx } from "./read-back.ts";
import { writeDocx } from "./write-docx.ts";

const run = (words: string, properties = ""): string =>
  `<w:r>${properties}<w:t xml:space="preserve">${words}</w:t></w:r>`;
const paragraph = (runs: string, properties = ""): string => `<w:p>${properties}${runs}</w:p>`;

test("a part without such letters stays as it is", () => {
  const part = paragraph(run("The sands lie bare."));
  expect(withDirections(part, "ltr")).toBe(part);
});

test("paragraphs go as their words do, and words of such letters alone are told", () => {
  const part = paragraph(run("גאות ")) + paragraph(run("The sands: גאות."));
  expect(withDirections(part, "ltr")).toBe(
    paragraph(run("גאות ", "<w:rPr><w:rtl/></w:rPr>"), "<w:pPr><w:bidi/></w:pPr>") +
      paragraph(run("The sands: גאות.")),
  );
});

test("in a book from right to left all do but foreign ones and listings, and so do tables and the section", () => {
  const listing = paragraph(run("low = 6"), '<w:pPr><w:pStyle w:val="HTMLPreformatted"/></w:pPr>');
  const foreign = paragraph(run("The sands lie bare."));
  const others =
    '<w:tbl><w:tblPr><w:tblW w:w="0"/></w:tblPr></w:tbl><w:sectPr><w:pgSz/><w:docGrid/></w:sectPr>';
  expect(withDirections(paragraph(run("6:45")) + listing + foreign + others, "rtl")).toBe(
    paragraph(run("6:45"), "<w:pPr><w:bidi/></w:pPr>") +
      listing +
      foreign +
      '<w:tbl><w:tblPr><w:bidiVisual/><w:tblW w:w="0"/></w:tblPr></w:tbl><w:sectPr><w:pgSz/><w:bidi/><w:docGrid/></w:sectPr>',
  );
});

// The order of the parts is the schema's (ECMA-376 part 1, annex A), by which programs refuse a document (from memory).
test("what is put in stands where its order has it", () => {
  const part = paragraph(
    run("גאות", '<w:rPr><w:b/><w:sz w:val="18"/><w:lang w:val="he"/></w:rPr>'),
    '<w:pPr><w:pStyle w:val="Caption"/><w:keepNext/><w:ind w:left="9"/><w:jc w:val="center"/></w:pPr>',
  );
  expect(withDirections(part, "rtl")).toBe(
    paragraph(
      run("גאות", '<w:rPr><w:b/><w:sz w:val="18"/><w:rtl/><w:lang w:val="he"/></w:rPr>'),
      '<w:pPr><w:pStyle w:val="Caption"/><w:keepNext/><w:bidi/><w:ind w:left="9"/><w:jc w:val="center"/></w:pPr>',
    ),
  );
});

test("a document of a book from right to left says so, its notes too, and is proven", async () => {
  const text = "# גאות\n\nמים[^1] [המשרד](https://tides.example/)\n\nThe sands lie bare.\n\n[^1]: בתשע\n";
  const book = bookOf(text, { language: "he" });
  const { bytes } = await writeDocx(book, "walks.docx");
  const [main, notes] = ["document", "footnotes"].map((part) =>
    strFromU8(unzipSync(bytes)[`word/${part}.xml`]!),
  );
  const turned = main!
    .split("</w:p>")
    .filter((one) => one.includes("<w:t"))
    .map((one) => one.includes("<w:bidi/>"));
  // Title and author of the book are the sample's, in English.
  expect(turned.slice(-3)).toEqual([true, true, false]);
  expect(main).toMatch(/<w:sectPr>.*<w:bidi\/>.*<\/w:sectPr>/s);
  expect(notes).toMatch(/<w:bidi\/>.*<w:rtl\/>.*בתשע/s);
  expect(prove(book, readDocx(bytes))).toMatchObject({ complete: true, faults: [] });
});
