import { expect, test } from "@jest/globals";
import { PDFDict, PDFDocument, PDFName, type PDFPage } from "@cantoo/pdf-lib";
import { smallPdf } from "../../test/small-pdf.ts";
import { annotationsOf } from "./open-pdf.ts";
import type { PdfPage } from "./pdf-page.ts";
import { proveSaved } from "./prove-saved.ts";
import { readFinishedPdf } from "./read-finished.ts";
import { saveFinishedPdf } from "./save-finished.ts";

type Damage = (document: PDFDocument, page: PDFPage) => void;

const names = { files: new Map<string, string>(), places: new Map<string, string>() };
const came = await smallPdf();
const { pages } = await readFinishedPdf(came);
/** One link is led elsewhere, and one is put in. */
const asked = pages.map((page): PdfPage => {
  if (page.number !== 1) return page;
  const [first, ...others] = page.links;
  const destination = { kind: "web" as const, address: "https://huts.hesterley.example/" };
  const fresh = {
    ...first!,
    id: "fresh",
    from: null,
    areas: [[100, 100, 160, 120]] as PdfPage["links"][number]["areas"],
  };
  return { ...page, links: [{ ...first!, destination }, ...others, { ...fresh, destination }] };
});
const saved = (await saveFinishedPdf(came, asked, names)).bytes;

/** What the proof tells of the saved file, after somebody has appended something more to it. */
async function faultsAfter(damage: Damage): Promise<string[]> {
  const document = await PDFDocument.load(saved, { forIncrementalUpdate: true, updateMetadata: false });
  damage(document, document.getPage(0));
  const { faults } = await proveSaved(came, await document.commit(), asked, names);
  return faults.map(({ what }) => what);
}

const set =
  (key: string, value: object | string | number | boolean) =>
  (dictionary: PDFDict): void =>
    dictionary.set(PDFName.of(key), dictionary.context.obj(value as never));
const onFile =
  (change: (dictionary: PDFDict) => void): Damage =>
  ({ catalog }) =>
    change(catalog);
const onPage =
  (change: (dictionary: PDFDict) => void): Damage =>
  (_, { node }) =>
    change(node);
const onLink =
  (change: (dictionary: PDFDict) => void): Damage =>
  (_, page) =>
    change(annotationsOf(page)[0]!.dictionary);
const script = { S: "JavaScript", JS: "app.alert(1)" };

test("what is asked for is all that was appended", async () => {
  expect(await proveSaved(came, saved, asked, names)).toMatchObject({ complete: true, faults: [] });
});

test.each<[what: string, damage: Damage]>([
  ["something done when it is opened", onFile(set("OpenAction", script))],
  ["something done by itself", onFile(set("AA", { WC: script }))],
  ["an address at which all links begin", onFile(set("URI", { Base: "x" }))],
  ["a form", onFile(set("AcroForm", { Fields: [] }))],
  ["other numbers of pages", onFile(set("PageLabels", { Nums: [0, { S: "r" }] }))],
  ["a page that is turned", onPage(set("Rotate", 90))],
  ["a page of another scale", onPage(set("UserUnit", 0.01))],
  ["a page that goes on by itself", onPage(set("Dur", 1))],
  ["a script of a page", onPage(set("AA", { O: script }))],
  ["a hidden link", onLink(set("F", 2))],
  ["a link with another action behind its own", onLink(set("PA", script))],
  ["a link that does something when it is pointed at", onLink(set("AA", { E: script }))],
  ["a link with two destinations", onLink(set("Dest", ["x"]))],
  ["a link that runs a script", onLink(set("A", script))],
  ["a shape over the page", (_, page) => page.drawRectangle({ x: 0, y: 0, width: 600, height: 800 })],
  ["another title", (document) => document.setTitle("Another")],
])("%s is told", async (_, damage) => {
  expect((await faultsAfter(damage)).length).toBeGreaterThan(0);
});
