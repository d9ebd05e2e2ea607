import type { PDFDocumentProxy, PDFPageProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import { ActualTexts } from "./actual-texts.ts";
import { PdfError } from "./errors.ts";
import { KeptPageTexts } from "./kept-page-texts.ts";
import { PageDigests } from "./page-digests.ts";
import { PdfObjects } from "./pdf-objects.ts";
import { inReadingOrder, type ShownLetters } from "./reading-order.ts";

/** How far most letters reach up, of the height of their line. */
const xHeight = 0.5;

/** A piece of a page's text. */
export interface PdfPiece {
  words: string;
  /** Its baseline, in points from the page's foot. */
  y: number;
  /** Of its letters, in points. */
  height: number;
}

/** The text of one page of a PDF. */
export interface PdfPageText {
  /** In the order in which it is read. */
  pieces: PdfPiece[];
  /** The letters of each marked content, by its id, as they are shown. */
  marked: ReadonlyMap<string, readonly PageLetters[]>;
}

/** What is known of a file whose objects can be read one by one. */
interface Known {
  digests: PageDigests;
  actualTexts: ActualTexts;
}

const kept = new KeptPageTexts<PdfPageText>();

/**
 * The texts of a PDF's pages, each read once however often it is asked for: reading them takes most of a proof. One that
 * shows what a page of an earlier file showed, to the byte, is that page's.
 */
export class PdfPageTexts {
  private readonly read = new Map<number, Promise<PdfPageText>>();

  private known: Promise<Known | null> | null;

  /** @param objects the file's own, where they have been opened */
  constructor(
    private readonly document: PDFDocumentProxy,
    objects: PdfObjects | null = null,
  ) {
    this.known = objects && Promise.resolve(knownBy(objects));
  }

  /** The text of a page. @param number from 1 */
  of(number: number): Promise<PdfPageText> {
    let text = this.read.get(number);
    if (!text) this.read.set(number, (text = this.textOf(number)));
    return text;
  }

  private async textOf(number: number): Promise<PdfPageText> {
    const page = await this.document.getPage(number);
    const known = await (this.known ??= knownOf(this.document));
    const ref = page.ref as { num: number; gen: number } | null;
    if (!known || !ref) return readText(page, "", () => []);
    // By it pdf.js names what is marked on the page.
    const prefix = `p${ref.num}R${ref.gen || ""}_`;
    const digest = known.digests.of(ref.num);
    const before = digest === null ? null : kept.of(digest);
    const text =
      before ?? (await readText(page, prefix, (sequences) => known.actualTexts.ofPage(ref.num, sequences)));
    if (digest !== null && !before) kept.keep(digest, text);
    return { ...text, marked: new Map([...text.marked].map(([id, letters]) => [prefix + id, letters])) };
  }

  /** Takes over what somebody else has read of a page, whose marked contents nobody asks for any more. */
  learn(number: number, pieces: PdfPiece[]): void {
    this.read.set(number, Promise.resolve({ pieces, marked: new Map() }));
  }
}

/** Letters that are shown together, and the marked content in which they stand. */
export interface PageLetters extends ShownLetters {
  /** Null where they are blank. */
  box: Box | null;
}

type Box = readonly [left: number, low: number, right: number, high: number];

async function knownOf(document: PDFDocumentProxy): Promise<Known | null> {
  try {
    return knownBy(new PdfObjects(await document.getData()));
  } catch (error) {
    if (error instanceof PdfError) return null;
    throw error;
  }
}

function knownBy(objects: PdfObjects): Known {
  return { digests: new PageDigests(objects), actualTexts: new ActualTexts(objects) };
}

/**
 * @param prefix with which what is marked on the page is named, and which is left away
 * @param actualOf what so many marked contents stand for
 */
async function readText(
  page: PDFPageProxy,
  prefix: string,
  actualOf: (sequences: number) => readonly (string | null)[],
): Promise<PdfPageText> {
  const { items } = await page.getTextContent({ includeMarkedContent: true });
  const sequences = items.filter((item) => "type" in item && item.type !== "endMarkedContent").length;
  const actual = actualOf(sequences);
  const shown: PageLetters[] = [];
  const open: { content: string | null; actual: string | null; isReversed: boolean }[] = [];
  let begun = 0;
  for (const item of items) {
    if ("type" in item) {
      if (item.type === "endMarkedContent") open.pop();
      else
        open.push({
          content: item.id?.replace(prefix, "") ?? null,
          actual: actual[begun++] ?? null,
          isReversed: (item as { tag?: string }).tag === "ReversedChars",
        });
      continue;
    }
    // What a piece says stands for all its letters (ISO 32000-1, 14.9.4).
    const said = open.find((one) => one.actual !== null);
    const blanks = item.str.trim() === "";
    const isReversed = open.some((one) => one.isReversed);
    // pdf.js turns round words that are written from right to left, and leaves signs alone.
    const shownWords = isReversed && item.dir !== "rtl" ? [...item.str].reverse().join("") : item.str;
    const words = said && !blanks ? said.actual! : shownWords;
    if (said && !blanks) said.actual = "";
    const [, , , , x, y] = item.transform as [number, number, number, number, number, number];
    shown.push({
      words,
      x,
      y,
      height: item.height,
      content: open.findLast(({ content }) => content !== null)?.content ?? null,
      box: blanks ? null : [x, y, x + item.width, y + item.height * xHeight],
      isRightToLeft: item.dir === "rtl" || (isReversed && !blanks),
      endsLine: item.hasEOL,
    });
  }
  return gathered(shown);
}

function gathered(shown: readonly PageLetters[]): PdfPageText {
  const marked = new Map<string, PageLetters[]>();
  for (const letters of shown) {
    if (letters.content === null) continue;
    const list = marked.get(letters.content);
    if (list) list.push(letters);
    else marked.set(letters.content, [letters]);
  }
  const pieces = inReadingOrder(shown).map(({ words, y, height, endsLine }) => ({
    words: endsLine ? `${words} ` : words,
    y,
    height,
  }));
  return { pieces, marked };
}

/** Letters in the order in which they are read, as one text. */
export function textOf(letters: readonly PageLetters[]): string {
  return inReadingOrder(letters)
    .map(({ words, endsLine }) => (endsLine ? `${words}\n` : words))
    .join("");
}
