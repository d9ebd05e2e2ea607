import type { PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import { ActualTexts } from "./actual-texts.ts";
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

/** The texts of a PDF's pages, each read once however often it is asked for: reading them takes most of a proof. */
export class PdfPageTexts {
  private readonly read = new Map<number, Promise<PdfPageText>>();

  private actualTexts: Promise<ActualTexts> | null = null;

  constructor(private readonly document: PDFDocumentProxy) {}

  /** The text of a page. @param number from 1 */
  of(number: number): Promise<PdfPageText> {
    let text = this.read.get(number);
    this.actualTexts ??= ActualTexts.of(this.document);
    if (!text) this.read.set(number, (text = readText(this.document, number, this.actualTexts)));
    return text;
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

async function readText(
  document: PDFDocumentProxy,
  number: number,
  actualTexts: Promise<ActualTexts>,
): Promise<PdfPageText> {
  const page = await document.getPage(number);
  const { items } = await page.getTextContent({ includeMarkedContent: true });
  const sequences = items.filter((item) => "type" in item && item.type !== "endMarkedContent").length;
  const actual = await (await actualTexts).ofPage(number, sequences);
  const shown: PageLetters[] = [];
  const open: { content: string | null; actual: string | null; isReversed: boolean }[] = [];
  let begun = 0;
  for (const item of items) {
    if ("type" in item) {
      if (item.type === "endMarkedContent") open.pop();
      else
        open.push({
          content: item.id ?? null,
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
