import type { PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import { landingLength } from "../../../proof/landing.ts";
import { PdfPageTexts, type PdfPiece } from "../../../pdf/page-text.ts";

// Baselines of one line of mixed sizes lie no further apart, in points; what is raised or lowered on it by a share of
// its height.
const sameLine = 2.5;
const raised = 0.55;

function isOnLine(piece: PdfPiece, { y, height }: Pick<PdfPiece, "y" | "height">): boolean {
  return Math.abs(piece.y - y) <= Math.max(sameLine, raised * Math.min(height, 1.5 * piece.height));
}

/** The words at the destinations of a PDF. */
export class Landings {
  constructor(
    private readonly document: PDFDocumentProxy,
    private readonly texts = new PdfPageTexts(document),
  ) {}

  /**
   * What a reader sees who is taken to a destination: the line on which it stands, and the lines after it.
   * @param above how far above what is meant the destination may lie, in points
   * @param dest a name, or the destination itself; null is returned where the file has no such destination
   */
  async at(dest: unknown, above = 0): Promise<string | null> {
    const destination = (typeof dest === "string" ? await this.document.getDestination(dest) : dest) as
      unknown[] | null;
    if (!Array.isArray(destination)) return null;
    const [page, , , top] = destination as [{ num: number; gen: number }, unknown, unknown, number | null];
    const { pieces } = await this.texts.of((await this.document.getPageIndex(page)) + 1);
    return linesFrom(pieces, (top ?? Infinity) - above);
  }
}

function linesFrom(pieces: PdfPiece[], top: number): string {
  const first = pieces.findIndex(({ words, y }) => y < top && words.trim() !== "");
  if (first === -1) return "";
  const begun = pieces[first]!;
  // The cells of a row stand on one line.
  const line = pieces.filter(
    (piece) => isOnLine(piece, begun) && (piece.y < top || piece.y > begun.y + sameLine),
  );
  const lines = [line.map(({ words }) => words).join("")];
  let before = begun;
  for (const piece of pieces.slice(first)) {
    if (isOnLine(piece, begun)) continue;
    // What is raised on a line says nothing of where the line is.
    if (isOnLine(piece, before)) lines.push(lines.pop()! + piece.words);
    else {
      lines.push(piece.words);
      before = piece;
    }
    if (lines.join("\n").length > landingLength) break;
  }
  return lines
    .map((one) => one.replace(/\s+/g, " ").trim())
    .filter(Boolean)
    .join("\n")
    .slice(0, landingLength);
}
