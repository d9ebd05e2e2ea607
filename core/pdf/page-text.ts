import type { PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";

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
  /** The text of each marked content, by its id, and the boxes of its pieces: left, lower, right and upper edge. */
  marked: ReadonlyMap<string, string>;
  boxes: ReadonlyMap<string, readonly [number, number, number, number][]>;
}

/** The texts of a PDF's pages, each read once however often it is asked for: reading them takes most of a proof. */
export class PdfPageTexts {
  private readonly read = new Map<number, Promise<PdfPageText>>();

  constructor(private readonly document: PDFDocumentProxy) {}

  /** The text of a page. @param number from 1 */
  of(number: number): Promise<PdfPageText> {
    let text = this.read.get(number);
    if (!text) this.read.set(number, (text = readText(this.document, number)));
    return text;
  }
}

async function readText(document: PDFDocumentProxy, number: number): Promise<PdfPageText> {
  const page = await document.getPage(number);
  const { items } = await page.getTextContent({ includeMarkedContent: true });
  const pieces: PdfPiece[] = [];
  const marked = new Map<string, string>();
  const boxes = new Map<string, [number, number, number, number][]>();
  const open: (string | null)[] = [];
  for (const item of items) {
    if ("type" in item) {
      if (item.type === "endMarkedContent") open.pop();
      else open.push(item.id ?? null);
      continue;
    }
    pieces.push({
      words: item.hasEOL ? `${item.str} ` : item.str,
      y: (item.transform as number[])[5]!,
      height: item.height,
    });
    const id = open.findLast((candidate) => candidate !== null);
    if (!id) continue;
    marked.set(id, (marked.get(id) ?? "") + item.str + (item.hasEOL ? "\n" : ""));
    if (item.str.trim() === "") continue;
    const [, , , , x, y] = item.transform as number[];
    const box: [number, number, number, number] = [x!, y!, x! + item.width, y! + item.height * xHeight];
    const list = boxes.get(id);
    if (list) list.push(box);
    else boxes.set(id, [box]);
  }
  return { pieces, marked, boxes };
}
