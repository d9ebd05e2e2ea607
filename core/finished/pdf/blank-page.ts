import { decodePDFRawStream, PDFArray, PDFRawStream, type PDFPage } from "@cantoo/pdf-lib";
import { annotationsOf, nameIn } from "./open-pdf.ts";

/** Operators that paint (ISO 32000-1, table 51): text, lines, surfaces, pictures and shadings. */
const paints = /(?:^|[\s)\]>])(?:Tj|TJ|'|"|f\*?|F|B\*?|b\*?|S|s|sh|Do|EI)(?=\s|$)/;

/** Whether nothing is painted on a page, and nothing but links lies on it. What cannot be read may be painted. */
export function isBlank(page: PDFPage): boolean {
  if (annotationsOf(page).some(({ dictionary }) => nameIn(dictionary, "Subtype") !== "Link")) return false;
  const contents = page.node.Contents();
  if (!contents) return true;
  const streams =
    contents instanceof PDFArray ? contents.asArray().map((_, i) => contents.lookup(i)) : [contents];
  return streams.every((stream) => {
    if (!(stream instanceof PDFRawStream)) return false;
    try {
      return !paints.test(new TextDecoder("latin1").decode(decodePDFRawStream(stream).decode()));
    } catch {
      // Damaged, or in a filter that the library does not know.
      return false;
    }
  });
}
