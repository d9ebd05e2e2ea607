import type { PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import { ActualTexts } from "./actual-texts.ts";
import { ContentTexts } from "./content-texts.ts";
import { PdfError } from "./errors.ts";
import { KeptPageTexts } from "./kept-page-texts.ts";
import { PageDigests } from "./page-digests.ts";
import type { PaintedPage } from "./page-paint.ts";
import { PdfObjects } from "./pdf-objects.ts";
import { inReadingOrder, type ShownLetters } from "./reading-order.ts";
import { itemsByPdfJs, type ShownItem } from "./shown-items.ts";

/** How far most letters reach up, of the height of their line. */
const xHeight = 0.5;

/** A piece of a page's text. */
export interface PdfPiece {
  words: string;
  /** Its left edge, in points from the page's. */
  x: number;
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
  /** How they are painted; null where that cannot be read. */
  paint: PaintedPage | null;
}

/** What is known of a file whose objects can be read one by one. */
interface Known {
  digests: PageDigests;
  contentTexts: ContentTexts;
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
    if (!known || !ref) return gathered(lettersOf(await itemsByPdfJs(page, "", () => [])), null);
    // By it pdf.js names what is marked on the page.
    const prefix = `p${ref.num}R${ref.gen || ""}_`;
    const digest = known.digests.of(ref.num);
    const before = digest === null ? null : kept.of(digest);
    const read = async (): Promise<PdfPageText> => {
      const { items, paint } = known.contentTexts.read(ref.num);
      const actualOf = (sequences: number): readonly (string | null)[] =>
        known.actualTexts.ofPage(ref.num, sequences);
      return gathered(lettersOf(items ?? (await itemsByPdfJs(page, prefix, actualOf))), paint);
    };
    const text = before ?? (await read());
    if (digest !== null && !before) kept.keep(digest, text);
    const named = <T>(all: ReadonlyMap<string, T>): Map<string, T> =>
      new Map([...all].map(([id, one]) => [prefix + id, one]));
    const paint = text.paint && { ...text.paint, shown: named(text.paint.shown) };
    return { ...text, marked: named(text.marked), paint };
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
  return {
    digests: new PageDigests(objects),
    contentTexts: new ContentTexts(objects),
    actualTexts: new ActualTexts(objects),
  };
}

/** The letters of what a page shows, with what they stand for in the place of what they are (ISO 32000-1, 14.9.4). */
function lettersOf(items: readonly ShownItem[]): PageLetters[] {
  const shown: PageLetters[] = [];
  const open: { content: string | null; actual: string | null; isReversed: boolean }[] = [];
  for (const item of items) {
    if (item.kind === "ends") {
      open.pop();
      continue;
    }
    if (item.kind === "begins") {
      open.push({ content: item.id, actual: item.actual, isReversed: item.tag === "ReversedChars" });
      continue;
    }
    const { x, y, height, isDrawn, isRightToLeft } = item;
    const said = open.find((one) => one.actual !== null);
    const isReversed = open.some((one) => one.isReversed);
    // pdf.js turns round words that are written from right to left, and leaves signs alone.
    const shownWords = isReversed && !isRightToLeft ? [...item.words].reverse().join("") : item.words;
    const words = said && isDrawn ? said.actual! : shownWords;
    if (said && isDrawn) said.actual = "";
    shown.push({
      words,
      x,
      y,
      height,
      content: open.findLast(({ content }) => content !== null)?.content ?? null,
      box: isDrawn ? [x, y, x + item.width, y + height * xHeight] : null,
      isRightToLeft: isRightToLeft || (isReversed && isDrawn),
      endsLine: item.endsLine,
    });
  }
  return shown;
}

function gathered(shown: readonly PageLetters[], paint: PaintedPage | null): PdfPageText {
  const marked = new Map<string, PageLetters[]>();
  for (const letters of shown) {
    if (letters.content === null) continue;
    const list = marked.get(letters.content);
    if (list) list.push(letters);
    else marked.set(letters.content, [letters]);
  }
  const pieces = inReadingOrder(shown).map(({ words, x, y, height, endsLine }) => ({
    words: endsLine ? `${words} ` : words,
    x,
    y,
    height,
  }));
  return { pieces, marked, paint };
}

/** Letters in the order in which they are read, as one text. */
export function textOf(letters: readonly PageLetters[]): string {
  return inReadingOrder(letters)
    .map(({ words, endsLine }) => (endsLine ? `${words}\n` : words))
    .join("");
}
