import { afterAll, beforeAll, expect, jest, test } from "@jest/globals";
import { PDFDocument, PDFName, StandardFonts } from "@cantoo/pdf-lib";
import type { PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import { PdfPageTexts } from "./page-text.ts";
import { openPdf } from "./pdf-js.ts";

const lines = ["Low water is at nine.", "The huts stand on stilts.", "No boat goes at night."];
const opened: PDFDocumentProxy[] = [];

/** A PDF with a page for each content, whose objects have higher numbers the more there is before them. */
async function pdfOf(contents: readonly string[], before = 0): Promise<PDFDocumentProxy> {
  const document = await PDFDocument.create();
  const { context } = document;
  for (let i = 0; i < before; i++) context.register(context.obj({}));
  const font = await document.embedFont(StandardFonts.Helvetica);
  for (const content of contents) {
    const { node } = document.addPage([300, 100]);
    node.setFontDictionary(PDFName.of("F1"), font.ref);
    node.addContentStream(context.register(context.stream(content)));
  }
  // Objects in streams are not read one by one.
  const shown = await openPdf(await document.save({ useObjectStreams: false })).promise;
  opened.push(shown);
  return shown;
}

const showing = (line: string): string => `BT /F1 12 Tf 20 40 Td (${line}) Tj ET`;

const textsOf = async (document: PDFDocumentProxy): Promise<string[]> => {
  const texts = new PdfPageTexts(document);
  return Promise.all(
    Array.from({ length: document.numPages }, async (_, i) =>
      (await texts.of(i + 1)).pieces.map(({ words }) => words).join(""),
    ),
  );
};

let asked: { mock: { contexts: unknown[] } };
beforeAll(async () => {
  const page = await (await pdfOf([showing("-")])).getPage(1);
  asked = jest.spyOn(Object.getPrototypeOf(page) as { getTextContent: () => unknown }, "getTextContent");
});
afterAll(() => Promise.all(opened.map((document) => document.loadingTask.destroy())));

const askedSince = async (work: () => Promise<unknown>): Promise<number[]> => {
  const before = asked.mock.contexts.length;
  await work();
  const pages = asked.mock.contexts.slice(before) as { pageNumber: number }[];
  return pages.map(({ pageNumber }) => pageNumber).sort();
};

test("pages that show what those of an earlier file showed are not read anew, and say the same", async () => {
  const first = await pdfOf(lines.map(showing));
  expect(await askedSince(async () => expect(await textsOf(first)).toEqual(lines))).toEqual([1, 2, 3]);
  const changed = [lines[0]!, "Two boats go at night.", lines[1]!, lines[2]!];
  const second = await pdfOf(changed.map(showing), 5);
  expect(await askedSince(async () => expect(await textsOf(second)).toEqual(changed))).toEqual([2]);
});

test("what is marked on such a page is named by the page's number in its own file", async () => {
  const marked = async (before: number): Promise<string[]> => {
    const shown = await pdfOf([`/P <</MCID 7>> BDC ${showing("Sands")} EMC`], before);
    const { num } = (await shown.getPage(1)).ref as { num: number };
    const { marked } = await new PdfPageTexts(shown).of(1);
    expect([...marked.values()].flat().map(({ words }) => words)).toEqual(["Sands"]);
    return [...marked.keys()].map((id) => id.replace(String(num), "N"));
  };
  expect(await askedSince(async () => expect(await marked(0)).toEqual(["pNR_mc7"]))).toHaveLength(1);
  expect(await askedSince(async () => expect(await marked(9)).toEqual(["pNR_mc7"]))).toHaveLength(0);
});
