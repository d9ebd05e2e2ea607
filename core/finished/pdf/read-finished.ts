import {
  PDFArray,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFString,
  type PDFDocument,
  type PDFObject,
  type PDFPage,
} from "@cantoo/pdf-lib";
import type { PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import { readHref } from "../../destination/destination.ts";
import { DestinationError } from "../../destination/errors.ts";
import type { Destination } from "../../destination/kinds/kinds.ts";
import { newId } from "../../manuscript/ids.ts";
import { openPdf } from "../../pdf/pdf-js.ts";
import type { FinishedFacts } from "../facts.ts";
import type { TellPage } from "../tell-page.ts";
import { Destinations } from "./destinations.ts";
import { frameOf } from "./frames.ts";
import { lettersOf, wordsAt, wordsWithin } from "./letters.ts";
import { addressText } from "./address-text.ts";
import { annotationsOf, damaged, dictionaryIn, entry, nameIn, numbersIn, textIn } from "./open-pdf.ts";
import { isBlank } from "./blank-page.ts";
import { hasSoundTable } from "./object-table.ts";
import { openFinished } from "./open-finished.ts";
import { Structure } from "./structure.ts";
import { spotId, topOfPage, type Area, type PdfPage, type PdfPlace } from "./pdf-page.ts";

/** A finished PDF as it is read. */
export interface FinishedPdf {
  facts: FinishedFacts;
  pages: PdfPage[];
}

/**
 * Reads every link of a PDF, with its areas, the words beneath, where it leads, its description and frame, and the places
 * to which links can lead: the tops of pages, the entries of the outline, and what links lead to now.
 * @throws FinishedError where it cannot be read, or its content is locked
 */
export async function readFinishedPdf(
  bytes: Uint8Array,
  tell: TellPage = () => undefined,
  password = "",
): Promise<FinishedPdf> {
  const { document, encryption } = await openFinished(bytes, password);
  encryption?.assertChangeable();
  const pages = pagesOf(document);
  const shown = await opened(bytes, password);
  try {
    const labels = await shown.getPageLabels();
    if (pages.length === 0) throw new Error("it has no page that can be read");
    const sheets = document.getPages();
    for (const page of pages) {
      page.isBlank = isBlank(sheets[page.number - 1]!);
      page.label = (labels?.[page.number - 1] || String(page.number)).slice(0, 100);
      if (page.links.length + page.untouched.length + page.places.length > 0) await readWords(page, shown);
      tell(page.number, pages.length);
    }
    return { facts: { ...factsOf(document, pages.length), hasBrokenTable: !hasSoundTable(bytes) }, pages };
  } catch (error) {
    throw damaged(error);
  } finally {
    await shown.loadingTask.destroy();
  }
}

/**
 * The links and places of every page as the file’s objects have them, without the words beneath.
 * @throws FinishedError where objects are not what they have to be
 */
export function pagesOf(document: PDFDocument): PdfPage[] {
  try {
    return readPages(document);
  } catch (error) {
    throw damaged(error);
  }
}

function readPages(document: PDFDocument): PdfPage[] {
  const pages = document.getPages().map((page, i) => pageOf(page, i + 1));
  const places = new Places(pages, new Destinations(document));
  const structure = Structure.of(document, () => undefined);
  places.ofOutline(document);
  for (const [i, page] of document.getPages().entries())
    for (const { from, dictionary } of annotationsOf(page))
      switch (nameIn(dictionary, "Subtype")) {
        case "Link":
          readLink(pages[i]!, from, dictionary, places, structure);
          break;
        case "Widget":
          readButton(pages[i]!, from, dictionary);
      }
  return pages;
}

async function readWords(page: PdfPage, shown: PDFDocumentProxy): Promise<void> {
  const proxy = await shown.getPage(page.number);
  const letters = lettersOf(await proxy.getTextContent({ includeMarkedContent: true }));
  for (const link of page.links) link.words = wordsWithin(letters, link.areas).slice(0, longestWords);
  for (const one of page.untouched)
    if (one.areas) one.words = wordsWithin(letters, one.areas).slice(0, longestWords);
  // A name that a program gave says nothing to the author; the words that stand there do.
  for (const place of page.places)
    if (place.of !== "outline" && place.y !== null)
      place.name = wordsAt(letters, place.x, place.y) || place.name;
  proxy.cleanup();
}

const longestWords = 2_000;

/** A PDF as pdf.js shows it. */
export async function opened(bytes: Uint8Array, password: string): Promise<PDFDocumentProxy> {
  const task = openPdf(bytes, password);
  try {
    return await task.promise;
  } catch (error) {
    await task.destroy();
    throw damaged(error);
  }
}

function factsOf(document: PDFDocument, pages: number): Omit<FinishedFacts, "hasBrokenTable"> {
  const { catalog } = document;
  const flags = entry(dictionaryIn(catalog, "AcroForm"), "SigFlags");
  const marked = entry(dictionaryIn(catalog, "MarkInfo"), "Marked");
  return {
    title: document.getTitle()?.trim() || null,
    author: document.getAuthor()?.trim() || null,
    language: textIn(entry(catalog, "Lang")),
    pages,
    isTagged: dictionaryIn(catalog, "StructTreeRoot") !== undefined && String(marked) === "true",
    isSigned: flags instanceof PDFNumber && (flags.asNumber() & 1) === 1,
  };
}

function pageOf(page: PDFPage, number: number): PdfPage {
  const { x, y, width, height } = page.getCropBox();
  const box: Area = [
    Math.min(x, x + width),
    Math.min(y, y + height),
    Math.max(x, x + width),
    Math.max(y, y + height),
  ];
  return {
    type: "pdf-page",
    number,
    label: String(number),
    box,
    links: [],
    places: [],
    untouched: [],
    isBlank: false,
  };
}

/** The places of all pages, made as something leads to them. */
class Places {
  private readonly known = new Set<string>();
  private readonly ids = new Map<string, string>();

  constructor(
    private readonly pages: readonly PdfPage[],
    private readonly destinations: Destinations,
  ) {}

  /** The id of the place to which a destination leads; null where that is nowhere. */
  idOf(value: PDFObject | undefined): string | null {
    const landing = this.destinations.landing(value);
    if (!landing) return null;
    const name = this.destinations.nameOf(value);
    const { page, x, y } = landing;
    if (name !== null) {
      // In the order in which links lead to them, which is the same each time that the file is read.
      const id = this.ids.get(name) ?? `name-${this.ids.size + 1}`;
      this.ids.set(name, id);
      return this.put({ id, of: "name", level: null, name: name.slice(0, 500), x, y }, page);
    }
    if (y === null) return topOfPage(page);
    return this.put({ id: spotId(page, x ?? 0, y), of: "spot", level: null, name: "", x, y }, page);
  }

  private put(place: PdfPlace, page: number): string {
    if (!this.known.has(place.id)) this.pages[page - 1]!.places.push(place);
    this.known.add(place.id);
    return place.id;
  }

  /** The entries of the outline (12.3.3). */
  ofOutline(document: PDFDocument): void {
    let count = 0;
    const seen = new Set<PDFDict>();
    const read = (first: PDFDict | undefined, level: number): void => {
      for (let item = first; item && !seen.has(item) && count < 5_000; item = dictionaryIn(item, "Next")) {
        seen.add(item);
        const action = dictionaryIn(item, "A");
        const landing = this.destinations.landing(entry(item, "Dest") ?? entry(action, "D"));
        const name = (textIn(entry(item, "Title")) ?? "").replace(/\s+/g, " ").trim().slice(0, 500);
        count++;
        if (landing && name !== "") {
          const { page, x, y } = landing;
          this.put({ id: `outline-${count}`, of: "outline", level, name, x, y }, page);
        }
        read(dictionaryIn(item, "First"), level + 1);
      }
    };
    read(dictionaryIn(dictionaryIn(document.catalog, "Outlines"), "First"), 1);
  }
}

function readLink(
  page: PdfPage,
  from: string,
  dictionary: PDFDict,
  places: Places,
  structure: Structure | null,
): void {
  const areas = areasOf(dictionary);
  if (!areas) {
    page.untouched.push({ from, words: "", areas, why: "It has no area on the page.", isDead: false });
    return;
  }
  if (isUnseen(dictionary)) {
    const why = "Readers do not see it: it is hidden on the screen.";
    page.untouched.push({ from, words: "", areas: null, why, isDead: true });
    return;
  }
  const read = destinationOf(dictionary, places);
  if ("why" in read) {
    page.untouched.push({ from, words: "", areas, ...read });
    return;
  }
  page.links.push({
    id: newId(),
    from,
    words: "",
    areas,
    destination: read.destination,
    description: textIn(entry(dictionary, "Contents"))?.trim().slice(0, longestWords) || null,
    frame: frameOf(dictionary),
    isInStructure: structure?.has(dictionary, from) ?? true,
  });
}

/** Whether an annotation is hidden, or not for the screen (12.5.3, flags 2 and 6). */
function isUnseen(dictionary: PDFDict): boolean {
  const flags = entry(dictionary, "F");
  return flags instanceof PDFNumber && (flags.asNumber() & (2 | 32)) !== 0;
}

/** A button of a form may lead out of the file as a link does (12.7.4.2). */
function readButton(page: PdfPage, from: string, dictionary: PDFDict): void {
  const kind = nameIn(dictionaryIn(dictionary, "A"), "S");
  if ((kind !== "URI" && kind !== "GoToR") || isUnseen(dictionary)) return;
  const caption = textIn(entry(dictionaryIn(dictionary, "MK"), "CA")) ?? textIn(entry(dictionary, "TU"));
  const words = (caption ?? textIn(entry(dictionary, "T")) ?? "").trim().slice(0, longestWords);
  page.untouched.push({ from, words, areas: null, why: "It is a button of a form.", isDead: false });
}

/** The areas of an annotation: its quadrilaterals where they lie within its rectangle (12.5.6.5), else that. */
function areasOf(dictionary: PDFDict): Area[] | null {
  const rectangle = numbersIn(entry(dictionary, "Rect"));
  if (rectangle?.length !== 4) return null;
  const [a, b, c, d] = rectangle as [number, number, number, number];
  const whole: Area = [Math.min(a, c), Math.min(b, d), Math.max(a, c), Math.max(b, d)];
  const points = numbersIn(entry(dictionary, "QuadPoints")) ?? [];
  const areas: Area[] = [];
  for (let i = 0; i + 8 <= points.length; i += 8) {
    const xs = [0, 2, 4, 6].map((at) => points[i + at]!);
    const ys = [1, 3, 5, 7].map((at) => points[i + at]!);
    areas.push([Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)]);
  }
  const slack = 1;
  const isWithin = ([left, low, right, high]: Area): boolean =>
    left >= whole[0] - slack &&
    low >= whole[1] - slack &&
    right <= whole[2] + slack &&
    high <= whole[3] + slack;
  return areas.length > 0 && areas.every(isWithin) ? areas : [whole];
}

/** What other actions do (12.6.4), and whether programs refuse to. */
const others: Readonly<Record<string, LeftLink>> = {
  Launch: { why: "It starts a program or opens a file on the reader’s own disk.", isDead: true },
  JavaScript: { why: "It runs a script.", isDead: true },
  SubmitForm: { why: "It sends a form.", isDead: true },
  Named: { why: "It is a command to the reader’s program, as to turn to the next page.", isDead: false },
  GoToE: { why: "It leads into a file that is embedded.", isDead: false },
};
type LeftLink = Pick<PdfPage["untouched"][number], "why" | "isDead">;

const unknown: LeftLink = { why: "What a press does is not known.", isDead: false };

/** Where an annotation leads, or why that cannot be worked on. */
function destinationOf(dictionary: PDFDict, places: Places): { destination: Destination } | LeftLink {
  const action = dictionaryIn(dictionary, "A");
  const kind = nameIn(action, "S");
  // What it does when a press begins or ends (12.6.3); a link of its own comes first.
  if (!action && !entry(dictionary, "Dest") && dictionaryIn(dictionary, "AA")) return unknown;
  if (!action || kind === "GoTo") {
    const target = places.idOf(action ? entry(action, "D") : entry(dictionary, "Dest"));
    // Of one that leads nowhere the author is told as of any place that is gone.
    return { destination: { kind: "place", target: target ?? "nowhere" } };
  }
  if (kind !== "URI" && kind !== "GoToR") return others[kind ?? ""] ?? unknown;
  const href = kind === "URI" ? addressIn(entry(action, "URI")) : remote(action);
  if (href === null || href.trim() === "") return { why: "It does not say where it leads.", isDead: true };
  const fault = faultOf(href);
  if (fault) return { why: fault, isDead: true };
  try {
    return { destination: readHref(href.trim(), null) };
  } catch (error) {
    if (!(error instanceof DestinationError)) throw error;
    return { why: `${error.message} (${href.slice(0, 300)})`, isDead: true };
  }
}

/** Why no program follows an address, whatever it is; null where nothing is known against it. */
function faultOf(href: string): string | null {
  if (href.startsWith("#")) return `It names a place of no page: ${href.slice(0, 300)}`;
  return href.includes("\0") ? "Its address is written in an encoding that programs do not take." : null;
}

function addressIn(value: PDFObject | undefined): string | null {
  return value instanceof PDFString || value instanceof PDFHexString ? addressText(value.asBytes()) : null;
}

/** The path of another file, with the page or name in it (RFC 8118; 12.6.4.3). */
function remote(action: PDFDict): string | null {
  const file = entry(action, "F");
  const path = file instanceof PDFDict ? textIn(entry(file, "UF") ?? entry(file, "F")) : textIn(file);
  if (path === null) return null;
  const to = entry(action, "D");
  const first = to instanceof PDFArray ? to.lookup(0) : undefined;
  if (first instanceof PDFNumber) return `${path}#page=${first.asNumber() + 1}`;
  const name = to instanceof PDFName ? to.decodeText() : textIn(to);
  return name === null ? path : `${path}#nameddest=${encodeURIComponent(name)}`;
}
