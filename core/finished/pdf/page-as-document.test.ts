import { expect, test } from "@jest/globals";
import { checkChapter } from "../../checks/check-chapter.ts";
import { linkUses } from "../../manuscript/links.ts";
import { contextOf } from "../../test/check-context.ts";
import { smallPdf } from "../../test/small-pdf.ts";
import { pageAsDocument } from "./page-as-document.ts";
import type { PdfPage } from "./pdf-page.ts";
import { readFinishedPdf } from "./read-finished.ts";

const firstPage = async (): Promise<PdfPage> => (await readFinishedPdf(await smallPdf())).pages[0]!;
const found = (page: PdfPage, describesAll: boolean) => {
  const doc = pageAsDocument(page);
  doc.check();
  return checkChapter(doc, contextOf([doc], { describesAll }));
};

test("a page is a document that has all its links, those on no words as areas", async () => {
  const page = await firstPage();
  const uses = linkUses(pageAsDocument(page));
  expect(uses.map(({ id }) => id).sort()).toEqual(page.links.map(({ id }) => id).sort());
  expect(uses.filter(({ on }) => on === "hotspot")).toMatchObject([
    { text: "", destination: { path: "maps.pdf#page=5" } },
  ]);
  expect(pageAsDocument({ ...page, links: [], places: [] }).childCount).toBe(2);
});

test("the rules say what its readers would meet", async () => {
  const page = await firstPage();
  const area = page.links.at(-1)!;
  const crowded = { ...page, links: [...page.links, { ...area, id: "over", description: "The map" }] };
  const of = (rule: string, describesAll = true) =>
    found(crowded, describesAll).filter((finding) => finding.rule === rule);
  expect(of("no-name").map(({ subject }) => subject)).toEqual([area.id]);
  expect(of("hotspot-overlap").map(({ subject }) => subject)).toEqual([area.id]);
  // Who reads a tagged file aloud is told the description alone; in one that is not tagged the words beneath are read.
  expect(of("description-lacking").map(({ mend }) => mend)).toEqual([
    { description: "office. Huts stand" },
    { description: "the map" },
  ]);
  expect(of("description-lacking", false)).toEqual([]);
});
