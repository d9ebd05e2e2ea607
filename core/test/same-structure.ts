import { PageStructures, type StructureNode } from "../pdf/page-structures.ts";
import { PdfObjects } from "../pdf/pdf-objects.ts";
import { openPdf } from "../pdf/pdf-js.ts";

/** What a page has of the structure of its file: for each element its type, what is said in its place, and what is in it. */
export type PlainStructure = string | { role: string; alt?: string; inside: PlainStructure[] };

/** The structure of each page of a PDF as it is read here and as pdf.js reads it, elements that have nothing on the page left away. */
export async function structuresBesidePdfJs(
  bytes: Uint8Array,
): Promise<{ own: (PlainStructure | null)[]; pdfJs: (PlainStructure | null)[] }> {
  const task = openPdf(bytes);
  const document = await task.promise;
  try {
    const structures = new PageStructures(new PdfObjects(bytes));
    const [own, pdfJs]: (PlainStructure | null)[][] = [[], []];
    for (let number = 1; number <= document.numPages; number++) {
      const page = await document.getPage(number);
      // pdf.js knows of the annotations on a page by then.
      await page.getAnnotations({ intent: "print" });
      const other = (await page.getStructTree()) as StructureNode | null;
      own!.push(plain(structures.of((page.ref as { num: number }).num)));
      pdfJs!.push(plain(other));
    }
    return { own: own!, pdfJs: pdfJs! };
  } finally {
    await task.destroy();
  }
}

function plain(node: StructureNode | null): PlainStructure | null {
  if (!node) return null;
  // An annotation that is all that an element has is named otherwise by pdf.js.
  if (node.type) return node.id!.replace("pdfjs_internal_id_", "");
  const inside = (node.children ?? []).map(plain).filter((one) => one !== null);
  if (inside.length === 0 && node.alt === undefined) return null;
  return { role: node.role!, ...(node.alt === undefined ? {} : { alt: node.alt }), inside };
}
