import type { PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import {
  foldBlanks,
  ProofError,
  type ExportReading,
  type Fault,
  type FormatTraits,
  type ReadEntry,
  type ReadList,
  type ReadNote,
  type TellPage,
} from "../../../proof/exported-link.ts";
import { openExport } from "../../../proof/exported-folder.ts";
import { PageStructures } from "../../../pdf/page-structures.ts";
import { isOfPdfJs, openPdf } from "../../../pdf/pdf-js.ts";
import { PdfError } from "../../../pdf/errors.ts";
import { PdfObjects } from "../../../pdf/pdf-objects.ts";
import { auditPdf } from "./audit.ts";
import { readPage, type Annotation, type ReadPage } from "./read-page.ts";
import { Landings } from "./landings.ts";
import { PdfPageTexts } from "../../../pdf/page-text.ts";

const traits: FormatTraits = {
  isPaged: true,
  keepsRelative: false,
  hasOwnNotes: false,
  hasTitle: true,
  opensWindows: false,
  hasRoles: false,
};
const levelsOfContents = 3;

/**
 * Reads every link out of a PDF's own bytes: its annotations for the destinations with pdf.js, its
 * structure tree for the words (ISO 14289-1, 7.18.5: each link annotation is inside a Link element).
 * A link annotation outside the structure tree is returned with no text, so that no proof passes it.
 * @param tell is told of each page that is read
 * @throws ProofError where the file cannot be opened.
 */
export async function readPdf(bytes: Uint8Array, tell: TellPage = () => undefined): Promise<ExportReading> {
  const { main, beside } = openExport(bytes);
  return withPdf(main, async (document) => {
    const objects = new PdfObjects(main);
    const { faults, unreachable } = auditPdf(objects);
    const structures = new PageStructures(objects);
    const texts = new PdfPageTexts(document, objects);
    const pages: ReadPage[] = [];
    for (let number = 1; number <= document.numPages; number++) {
      const page = await document.getPage(number);
      pages.push(await readPage(page, number, texts, structures, unreachable));
      page.cleanup();
      tell(number, document.numPages);
    }
    return readingOf(document, texts, pages, faults, beside);
  });
}

/**
 * Opens a PDF by pdf.js for one piece of work.
 * @throws ProofError `unreadable` where it cannot be opened, or an object of it cannot be read
 */
async function withPdf<T>(bytes: Uint8Array, work: (document: PDFDocumentProxy) => Promise<T>): Promise<T> {
  const task = openPdf(bytes);
  let document: PDFDocumentProxy;
  try {
    document = await task.promise;
  } catch (error) {
    throw new ProofError("unreadable", `The PDF cannot be opened: ${(error as Error).message}`);
  }
  try {
    return await work(document);
  } catch (error) {
    if (error instanceof PdfError || isOfPdfJs(error)) throw new ProofError("unreadable", error.message);
    throw error;
  } finally {
    await task.destroy();
  }
}

/** What all pages of a file come to. */
async function readingOf(
  document: PDFDocumentProxy,
  texts: PdfPageTexts,
  read: readonly ReadPage[],
  faults: readonly Fault[],
  beside: ExportReading["files"],
): Promise<ExportReading> {
  const numbers = new Map(read.map(({ object }, i) => [object, i + 1]));
  const landings = new Landings(document, texts, (page) => numbers.get(page?.num) ?? null);
  const links = read.flatMap((page) => page.links);
  const named = (await document.getDestinations()) as Record<string, unknown[]>;
  const byObject = new Map(read.map((page) => [page.object, page]));
  for (const { destination } of links) {
    if (destination.kind !== "place") continue;
    Object.assign(destination, await landings.at(destination.target));
    destination.linksThere = linksAt(named[destination.target], byObject);
  }
  return {
    traits,
    pages: document.numPages,
    files: beside,
    pageOfPlace: await pagesOfPlaces(document, named, numbers),
    links,
    placesInOrder: [],
    placesAside: new Set(),
    pictures: new Map(read.map((page, i) => [i + 1, page.pictures])),
    notes: notesOf(read),
    linkedPages: [],
    lists: await listsOf(document, read, landings, named),
    faults: [...faults, ...read.flatMap((page) => page.faults), ...(await wrongLabels(document, texts))],
  };
}

/** The notes at the foot of pages by their marks, each with the words of the note to which its mark leads. */
function notesOf(pages: readonly ReadPage[]): ReadNote[] {
  const marks = new Map(pages.map((page) => [page.object, page.marks]));
  const notes = new Map(pages.map((page) => [page.object, page.notes]));
  return pages.flatMap((page, i) =>
    page.marks.map((mark): ReadNote => {
      const note = nearest(mark.annotation.dest, notes, aboveNotes);
      // A note leads to the first of its marks.
      const first = note && nearest(note.annotation.dest, marks, 0);
      return {
        words: mark.words,
        landing: note?.text ?? null,
        leadsBack: first !== null && nearest(first.annotation.dest, notes, aboveNotes) === note,
        where: `page ${i + 1}`,
      };
    }),
  );
}

// A reader is taken a little above a note's number, in points.
const aboveNotes = 8;
// A note's number stands no further from where its mark leads, in points, and a mark from where its note does.
const mostBeside = 80;

/**
 * Of what stands on the page to which a destination leads, that which is nearest to it.
 * @param onPages what stands on each page, by the number of its object
 * @param above how far it leads above it
 */
function nearest<T extends { annotation: Annotation }>(
  dest: unknown,
  onPages: ReadonlyMap<number, readonly T[]>,
  above: number,
): T | null {
  if (!Array.isArray(dest)) return null;
  const [page, , left, top] = dest as [{ num: number }, unknown, number, number];
  let found: T | null = null;
  let least = mostBeside;
  for (const one of onPages.get(page.num) ?? []) {
    const [x, , , y] = one.annotation.rect as [number, number, number, number];
    // Lines lie closer together than the marks of one line.
    const away = Math.abs(y + above - top) + Math.abs(x - left) / 10;
    if (away < least) [found, least] = [one, away];
  }
  return found;
}

// A reader is taken a little above a heading, in points.
const aboveHeadings = 7;

/** The outline, and the list of contents on the pages. */
async function listsOf(
  document: PDFDocumentProxy,
  pages: readonly ReadPage[],
  landings: Landings,
  named: Readonly<Record<string, unknown[]>>,
): Promise<ReadList[]> {
  const where = (dest: unknown): string | null => {
    if (!Array.isArray(dest)) return null;
    const [page, , x, y] = dest as [{ num: number }, unknown, number, number];
    return `${page.num} ${Math.round(x)} ${Math.round(y)}`;
  };
  const names = new Map<string | null, string[]>();
  for (const [name, dest] of Object.entries(named))
    names.set(where(dest), [...(names.get(where(dest)) ?? []), name]);
  const entryOf = async (words: string, dest: unknown): Promise<ReadEntry> => ({
    words: foldBlanks(words),
    targets: typeof dest === "string" ? [dest] : (names.get(where(dest)) ?? []),
    ...(await landings.at(dest, aboveHeadings)),
  });
  type Item = { title: string; dest: unknown; items: Item[] };
  const flat = (items: readonly Item[]): Item[] => items.flatMap((item) => [item, ...flat(item.items)]);
  const outline = flat(((await document.getOutline()) ?? []) as Item[]);
  const entries = pages.flatMap((page) => page.entries);
  return [
    {
      name: "The outline",
      levels: Infinity,
      isAsShown: true,
      hasCompanions: true,
      isOwn: true,
      entries: await Promise.all(outline.map(({ title, dest }) => entryOf(title, dest))),
    },
    {
      name: "The list of contents",
      levels: levelsOfContents,
      isAsShown: true,
      hasCompanions: true,
      isOwn: false,
      entries: await Promise.all(entries.map(({ words, annotation }) => entryOf(words, annotation.dest))),
    },
  ];
}

/** Whether the numbers that a file tells of its pages are those that stand on them, where any do. */
async function wrongLabels(document: PDFDocumentProxy, texts: PdfPageTexts): Promise<Fault[]> {
  const labels = await document.getPageLabels();
  if (!labels) return [];
  const found: (string | null)[] = [];
  for (let number = 1; number <= document.numPages; number++) {
    const { pieces } = await texts.of(number);
    const foot = pieces.filter(({ words }) => /^\s*\d+\s*$/.test(words)).map(({ words }) => words.trim());
    found.push(foot.length === 0 ? null : foot.includes(labels[number - 1]!) ? "same" : "other");
  }
  const other = found.filter((one) => one === "other").length;
  const same = found.filter((one) => one === "same").length;
  return other > same
    ? [{ where: "The file", what: "The numbers of its pages are not those that stand on them." }]
    : [];
}

// A mark stands about where readers are taken for it, in points; one in a heading may stand some lines below.
const besideMarks = 15;
const belowMarks = 60;

/** The words of the links of the text, marks of notes among them, on the line to which a destination leads. */
function linksAt(dest: unknown, pages: ReadonlyMap<number, ReadPage>): string[] {
  if (!Array.isArray(dest)) return [];
  const [ref, , , top] = dest as [{ num: number }, unknown, number, number];
  const page = pages.get(ref.num);
  if (!page) return [];
  const links = page.links.filter(({ apparatus }) => !apparatus);
  const marks = [...page.marks, ...page.marksInNotes].map(({ words, annotation }) => ({
    text: words,
    boxes: [annotation.rect],
  }));
  return [...links, ...marks]
    .filter(({ boxes }) =>
      boxes.some(([, , , high = 0]) => high < top + besideMarks && high > top - belowMarks),
    )
    .map(({ text }) => text);
}

/** The label of the page (ISO 32000, 12.4.2) on which each named destination lies. */
async function pagesOfPlaces(
  document: PDFDocumentProxy,
  named: Readonly<Record<string, unknown[]>>,
  numbers: ReadonlyMap<number, number>,
): Promise<Map<string, string>> {
  const labels = await document.getPageLabels();
  const pages = new Map<string, string>();
  for (const [name, destination] of Object.entries(named)) {
    const number = numbers.get((destination[0] as { num: number } | null)?.num ?? -1);
    if (number !== undefined) pages.set(name, labels?.[number - 1] ?? String(number));
  }
  return pages;
}
