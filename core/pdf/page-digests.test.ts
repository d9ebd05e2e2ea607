import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { pdfOfObjects, streamOf, type NamedObjects } from "../test/pdf-of-objects.ts";
import { PageDigests } from "./page-digests.ts";
import { PdfObjects } from "./pdf-objects.ts";

/** A page of some letters in a font of its own, whose resources come from the pages above it. */
const page: NamedObjects = {
  catalog: "<</Type /Catalog /Pages {{pages}} /Names (tides)>>",
  pages: "<</Type /Pages /Count 1 /Kids [{{page}}] /Resources {{resources}} /MediaBox [0 0 300 400]>>",
  page: "<</Type /Page /Parent {{pages}} /Contents {{content}} /Annots [{{link}}] /StructParents 0>>",
  content: streamOf("BT /F1 12 Tf (Low water) Tj ET"),
  resources: "<</Font <</F1 {{font}}>>>>",
  font: "<</Type /Font /Subtype /Type0 /ToUnicode {{letters}} /W [1 [500 612.0005]]>>",
  letters: streamOf("1 beginbfchar <01> <0041> endbfchar"),
  link: "<</Subtype /Link /A <</S /URI /URI (https://tides.hesterley.example/)>>>>",
};

/** The page's digest in a file whose objects stand in this order. */
function digest(objects: NamedObjects, order = Object.keys(objects)): string | null {
  const { bytes, numberOf } = pdfOfObjects(objects, order);
  return new PageDigests(new PdfObjects(bytes)).of(numberOf("page"));
}

describe("what shows the same has the same digest", () => {
  test("whatever numbers its objects have, and wherever they stand", () => {
    const orders = fc.shuffledSubarray(Object.keys(page), { minLength: Object.keys(page).length });
    fc.assert(fc.property(orders, (order) => digest(page, order) === digest(page)));
    expect(digest(page)).toMatch(/^[0-9a-f]{64}$/);
  });

  test.each([
    ["its links", { link: "<</Subtype /Link /A <</S /URI /URI (https://else.hesterley.example/)>>>>" }],
    ["its place in the structure", { page: page["page"]!.replace("/StructParents 0", "/StructParents 7") }],
    ["what is told of the file", { catalog: page["catalog"]!.replace("tides", "sands") }],
  ])("whatever %s", (_, changed) => {
    expect(digest({ ...page, ...changed })).toBe(digest(page));
  });
});

describe("what may show something else has another digest", () => {
  test.each<[string, NamedObjects]>([
    ["a letter of its content", { content: page["content"]!.replace("Low", "Law") }],
    ["what the letters of its font are", { letters: page["letters"]!.replace("0041", "0042") }],
    ["the width of a letter, however little", { font: page["font"]!.replace("612.0005", "612.0004") }],
    ["a name for a string", { font: page["font"]!.replace("/Type0", "(Type0)") }],
    ["the box of the pages above it", { pages: page["pages"]!.replace("300", "301") }],
    ["resources of its own", { page: page["page"]!.replace("/Annots", "/Resources <<>> /Annots") }],
    ["how it is turned", { page: page["page"]!.replace("/Annots", "/Rotate 90 /Annots") }],
  ])("%s", (_, changed) => {
    const other = digest({ ...page, ...changed });
    expect(other).not.toBe(digest(page));
    expect(other).not.toBeNull();
  });
});

test.each<[string, NamedObjects]>([
  ["leads in a circle", { letters: streamOf("x", "/UseCMap {{font}}") }],
  ["cannot be read", { font: "<</Type" }],
  [
    "has pages above it that lead in a circle",
    { pages: page["pages"]!.replace("/Count", "/Parent {{pages}} /Count") },
  ],
])("a page that %s has none, or its own", (what, changed) => {
  const found = digest({ ...page, ...changed });
  if (what.includes("pages above")) expect(found).toBe(digest(page));
  else expect(found).toBeNull();
});
