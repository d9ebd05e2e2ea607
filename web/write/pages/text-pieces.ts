import type { PDFDocumentProxy } from "pdfjs-dist";

/** A piece of a page's text. */
export interface TextPiece {
  text: string;
  /** Its base line, in points from the foot of the page. */
  y: number;
  /** The height of its letters, in points. */
  height: number;
}

/** The pieces of text of all pages, in the order in which they are read. */
export async function piecesOf(pdf: PDFDocumentProxy): Promise<TextPiece[][]> {
  const numbers = Array.from({ length: pdf.numPages }, (_, i) => i + 1);
  return Promise.all(
    numbers.map(async (number) => {
      const { items } = await (await pdf.getPage(number)).getTextContent();
      return items.flatMap((item): TextPiece[] =>
        "str" in item ? [{ text: item.str, y: item.transform[5] as number, height: item.height }] : [],
      );
    }),
  );
}
