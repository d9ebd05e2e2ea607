import { expect, test } from "@jest/globals";
import { checkChapter } from "../../checks/check-chapter.ts";
import { linkUses } from "../../manuscript/links.ts";
import { contextOf } from "../../test/check-context.ts";
import { smallPdf } from "../../test/small-pdf.ts";
import { FinishedPage } from "./finished-page.ts";
import { pageForRules } from "./page-for-rules.ts";
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

test("the rules are told where its links lie, and one press puts them into the structure", async () => {
  const page = await firstPage();
  const outside = { ...page, links: page.links.map((link) => ({ ...link, isInStructure: false })) };
  const doc = pageAsDocument(outside);
  const context = contextOf([doc], { pages: [pageForRules(outside)] });
  const all = checkChapter(doc, context);
  expect(all.find(({ rule }) => rule === "cannot-be-followed")).toMatchObject({
    subject: expect.stringMatching(/^left-\d+-0$/),
    message:
      "A link: it starts a program or opens a file on the reader’s own disk. Lead it elsewhere on its page, or take it out.",
  });
  const findings = all.filter(({ rule }) => rule === "outside-structure");
  expect(findings.map(({ subject }) => subject).sort()).toEqual(page.links.map(({ id }) => id).sort());
  const { part, count } = new FinishedPage(outside).changed(() => findings[0]!.mend);
  expect([count, part.content.links.every(({ isInStructure }) => isInStructure)]).toEqual([
    page.links.length,
    true,
  ]);
  // In CSS px from the upper left corner, of which a point is 96/72: the area lies at 40, 10 to 60, 30 of 400 by 600.
  const area = pageForRules(page).links.find(({ isOnWords }) => !isOnWords)!;
  const [{ left, top, right, bottom }] = area.boxes as [(typeof area.boxes)[0]];
  expect([left, top, right, bottom].map(Math.round)).toEqual([53, 760, 80, 787]);
});
