import type { PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import { landingLength } from "../../../proof/landing.ts";
import type { Landing } from "../../../proof/exported-link.ts";
import { PdfPageTexts, type PdfPiece } from "../../../pdf/page-text.ts";

// Baselines of one line of mixed sizes lie no further apart, in points; what is raised or lowered on it by a share of
// its height.
const sameLine = 2.5;
const raised = 0.55;

function isOnLine(piece: PdfPiece, { y, height }: Pick<PdfPiece, "y" | "height">): boolean {
  return Math.abs(piece.y - y) <= Math.max(sameLine, raised * Math.min(height, 1.5 * piece.height));
}

/** What a destination names its page by (ISO 32000, 7.3.10). */
interface PageRef {
  num: number;
  gen: number;
}

/** The words at the destinations of a PDF. */
export class Landings {
  /** What is at a name, to which many links may lead. */
  private readonly named = new Map<string, Promise<Landing>>();

  /** @param numberOf the number of a page, from 1, by its object; null where it is no page of the file */
  constructor(
    private readonly document: PDFDocumentProxy,
    private readonly texts = new PdfPageTexts(document),
    private readonly numberOf: (page: PageRef) => number | null | Promise<number> = async (page) =>
      (await document.getPageIndex(page)) + 1,
  ) {}

  /**
   * What a reader sees who is taken to a destination: the line on which it stands, and the lines after it.
   * @param above how far above what is meant the destination may lie, in points
   * @param dest a name, or the destination itself; null is returned where the file has no such destination
   */
  at(dest: unknown, above = 0): Promise<Landing> {
    if (typeof dest !== "string") return this.read(dest, above);
    const key = `${above} ${dest}`;
    let landing = this.named.get(key);
    if (!landing) this.named.set(key, (landing = this.read(dest, above)));
    return landing;
  }

  private async read(dest: unknown, above: number): Promise<Landing> {
    const destination = (typeof dest === "string" ? await this.document.getDestination(dest) : dest) as
      unknown[] | null;
    if (!Array.isArray(destination)) return { landing: null };
    const [page, , left, to] = destination as [PageRef, unknown, number | null, number | null];
    const number = await this.numberOf(page);
    if (number === null) return { landing: null };
    const { pieces } = await this.texts.of(number);
    const top = (to ?? Infinity) - above;
    const first = pieces.findIndex(({ words, y }) => y < top && words.trim() !== "");
    if (first === -1) return { landing: "" };
    return {
      landing: linesFrom(pieces, first, top),
      inColumns: columnsFrom(pieces, first, { left: left ?? 0, top }),
    };
  }
}

// A destination stands at the left edge of its words, in points, or within them,
const besideWords = 1;
// and above their baseline, in shares of their height.
const aboveWords = 1.6;

/**
 * The words at a destination cell by cell, as they are shown: from those that begin at it, or on its line right of it, as in
 * the middle of a cell, or left of it, where it stands within them.
 */
function columnsFrom(
  pieces: readonly PdfPiece[],
  first: number,
  { left, top }: { left: number; top: number },
): string[] {
  const begun = pieces[first]!;
  const near = pieces.flatMap((piece, at) => {
    const { words, x, y, height } = piece;
    const isNear = isOnLine(piece, begun) || (y < top && top - y < aboveWords * height);
    return isNear && words.trim() !== "" ? [{ at, away: x - left }] : [];
  });
  const behind = near.filter(({ away }) => away >= -besideWords).sort((a, b) => a.away - b.away);
  const before = near.filter(({ away }) => away < -besideWords).sort((a, b) => b.away - a.away);
  return [behind[0], before[0]].flatMap((start) => (start ? [columnAt(pieces, start.at)] : []));
}

function columnAt(pieces: readonly PdfPiece[], from: number): string {
  return readOn([""], pieces[from]!, pieces.slice(from));
}

function linesFrom(pieces: readonly PdfPiece[], first: number, top: number): string {
  const begun = pieces[first]!;
  // The cells of a row stand on one line.
  const line = pieces.filter(
    (piece) => isOnLine(piece, begun) && (piece.y < top || piece.y > begun.y + sameLine),
  );
  const others = pieces.slice(first).filter((piece) => !isOnLine(piece, begun));
  return readOn([line.map(({ words }) => words).join("")], begun, others);
}

/** Lines, and as many after them as are worth reading. @param before what the last of them has on its line */
function readOn(lines: string[], before: PdfPiece, pieces: readonly PdfPiece[]): string {
  let last = before;
  for (const piece of pieces) {
    // What is raised on a line says nothing of where the line is.
    if (isOnLine(piece, last)) lines.push(lines.pop()! + piece.words);
    else {
      lines.push(piece.words);
      last = piece;
    }
    if (lines.join("\n").length > landingLength) break;
  }
  return asRead(lines);
}

function asRead(lines: readonly string[]): string {
  return lines
    .map((one) => one.replace(/\s+/g, " ").trim())
    .filter(Boolean)
    .join("\n")
    .slice(0, landingLength);
}
