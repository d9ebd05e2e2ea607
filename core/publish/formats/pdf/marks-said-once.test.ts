import { expect, test } from "@jest/globals";
import { PdfObjects } from "../../../pdf/pdf-objects.ts";
import { PdfRef } from "../../../pdf/pdf-values.ts";
import { pdfOfObjects, streamOf } from "../../../test/pdf-of-objects.ts";
import { sayMarksOnce } from "./marks-said-once.ts";

// 1 is a letter of Hebrew that is said with its mark, 2 that mark, said so too; 3 is a letter, 4 a mark that is said alone.
const map = "4 beginbfchar <0001> <05D105B8> <0002> <05D105B8> <0003> <05D0> <0004> <05B8> endbfchar";

/** The content of a page after it was seen to that marks are said once. */
function contentAfter(content: string, font = "{{font}}"): string {
  const { bytes, numberOf } = pdfOfObjects({
    catalog: "<</Type /Catalog /Pages {{pages}}>>",
    pages: `<</Type /Pages /Count 1 /Kids [{{page}}] /Resources <</Font <</F1 ${font}>>>>>>`,
    page: "<</Type /Page /Parent {{pages}} /MediaBox [0 0 300 300] /Contents {{content}}>>",
    content: streamOf(content),
    font: "<</Type /Font /Subtype /Type0 /Encoding /Identity-H /DescendantFonts [{{glyphs}}] /ToUnicode {{map}}>>",
    plain: "<</Type /Font /Subtype /Type1 /BaseFont /Helvetica>>",
    glyphs: "<</Type /Font /Subtype /CIDFontType2 /DW 600 /W [2 [0] 4 [0]]>>",
    map: streamOf(map),
  });
  const objects = new PdfObjects(bytes);
  sayMarksOnce(objects, [new PdfRef(numberOf("page"))]);
  const updated = new PdfObjects(objects.updated());
  return updated.content(updated.dictionary(new PdfRef(numberOf("page")))).replace(/\s+/g, " ");
}

const silent = "/Span <</ActualText ()>> BDC";

test.each<[what: string, before: string, after: string]>([
  [
    "among letters, which stay where they are",
    "BT /F1 9 Tf [<0003> 40 <0002> -30 <00010003>] TJ ET",
    `BT /F1 9 Tf [<0003>] TJ ${silent} [40 <0002>] TJ EMC [-30 <0001><0003>] TJ ET`,
  ],
  ["alone", "BT /F1 9 Tf <0002> Tj ET", `BT /F1 9 Tf ${silent} [<0002>] TJ EMC ET`],
  [
    "in a content that is said to stand for something",
    "/Span <</MCID 3 /ActualText (\\376\\377\\005\\321\\005\\270)>> BDC BT /F1 9 Tf [<0002>] TJ ET EMC",
    "/Span <</MCID 3 /ActualText ()>> BDC BT /F1 9 Tf [<0002>] TJ ET EMC",
  ],
])("a mark that is said with its letter is silent %s", (_, before, after) => {
  const plain = (content: string): string => content.replace(/\s+/g, "");
  expect(plain(contentAfter(before))).toBe(plain(after));
});

test.each([
  ["a mark that says itself alone", "BT /F1 9 Tf [<00030004>] TJ ET"],
  ["a letter that says its mark", "BT /F1 9 Tf [<0001>] TJ ET"],
  [
    "a letter with its mark, in a content that says both",
    "/Span <</ActualText (\\376\\377\\005\\321\\005\\270)>> BDC BT /F1 9 Tf [<00020001>] TJ ET EMC",
  ],
])("%s stays", (_, content) => {
  expect(contentAfter(content)).toBe(content);
});

test("fonts that do not say what their codes mean are left", () => {
  expect(contentAfter("BT /F1 9 Tf (ab) Tj ET", "{{plain}}")).toBe("BT /F1 9 Tf (ab) Tj ET");
});
