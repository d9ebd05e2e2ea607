import { expect, test } from "@jest/globals";
import { pdfOfObjects, streamOf } from "../test/pdf-of-objects.ts";
import { ContentTexts } from "./content-texts.ts";
import type { PaintedPage } from "./page-paint.ts";
import { PdfObjects } from "./pdf-objects.ts";

const words = "/Span <</MCID 0>> BDC BT /F1 10 Tf 1 0 0 1 20 300 Tm (low water) Tj ET EMC";

function painted(content: string): PaintedPage {
  const { bytes, numberOf } = pdfOfObjects({
    catalog: "<</Type /Catalog /Pages {{pages}}>>",
    pages: "<</Type /Pages /Count 1 /Kids [{{page}}] /MediaBox [0 0 300 400] /Resources {{resources}}>>",
    page: "<</Type /Page /Parent {{pages}} /Contents {{content}}>>",
    resources:
      "<</Font <</F1 {{font}}>> /XObject <</X {{form}} /P {{picture}}>> /ExtGState <</Faint <</ca 0.1>> /Plain <</LW 2 /ca 1 /BM /Normal>> /Mask <</SMask <<>>>>>>>>",
    content: streamOf(content),
    font: "<</Type /Font /Subtype /Type1 /BaseFont /Helvetica>>",
    form: streamOf("0 0 9 9 re f", "/Type /XObject /Subtype /Form /BBox [0 0 9 9] /Matrix [2 0 0 2 0 0]"),
    picture: streamOf("", "/Type /XObject /Subtype /Image /Width 1 /Height 1"),
  });
  return new ContentTexts(new PdfObjects(bytes)).read(numberOf("page")).paint!;
}

test("letters that are drawn as most are, are seen", () => {
  expect(painted(`q 0.1 g /Plain gs ${words} Q 0 0 m 20 20 l S`)).toEqual({
    wrong: [],
    covers: [],
    shown: new Map([["mc0", 1]]),
  });
});

test.each([
  ["not drawn", `BT 3 Tr ET ${words}`, "not drawn"],
  ["hardly seen", `/Faint gs ${words}`, "hardly seen"],
  ["seen through a mask", `/Mask gs ${words}`, "SMask"],
  ["drawn by a state that is not there", `/None gs ${words}`, "not there"],
  ["of no size", `0.1 0 0 0.1 0 0 cm ${words}`, "no size"],
  ["cut away", `0 0 10 10 re W n ${words}`, "cut away"],
  ["cut away by the second of two", `0 0 300 400 re W n 0 0 10 10 re W n ${words}`, "cut away"],
  ["in the colour of the page", `1 1 1 rg ${words}`, "colour of the page"],
  ["in none of the inks", `0 0 0 0 k ${words}`, "colour of the page"],
  ["in a layer", `/OC /L BDC ${words} EMC`, "layer"],
  ["under a shading", `${words} /S sh`, "sh"],
])("letters that are %s are told", (_, content, told) => {
  const { wrong } = painted(content);
  expect(wrong).toHaveLength(1);
  expect(wrong[0]).toContain(told);
});

test("white letters on a dark field are seen, and so are those in a wide cut", () => {
  expect(painted(`0 0 1 rg 10 290 200 40 re f 1 1 1 rg ${words}`).wrong).toEqual([]);
  expect(painted(`10 290 200 40 re W n ${words}`).wrong).toEqual([]);
});

test("what is laid over a page is told in its order, where it lies", () => {
  const { covers, shown } = painted(
    `0 0 5 5 re f ${words} q 2 0 0 2 10 20 cm 1 1 4 3 re f Q /X Do q 30 0 0 40 1 2 cm /P Do Q`,
  );
  expect(shown.get("mc0")).toBe(1);
  expect(covers).toEqual([
    { box: [0, 0, 5, 5], after: 0, isPicture: false },
    { box: [12, 22, 20, 28], after: 1, isPicture: false },
    { box: [0, 0, 18, 18], after: 1, isPicture: true },
    { box: [1, 2, 31, 42], after: 1, isPicture: true },
  ]);
});
