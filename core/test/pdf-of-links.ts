import { PDFDocument, PDFName, PDFString } from "@cantoo/pdf-lib";

/** A PDF with a page for each address, and a link to it on it. */
export async function pdfOfLinks(addresses: readonly string[]): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  const { context } = document;
  for (const address of addresses) {
    const link = context.obj({
      Type: "Annot",
      Subtype: "Link",
      Rect: [10, 10, 90, 30],
      A: { S: "URI", URI: PDFString.of(address) },
    });
    document.addPage([300, 300]).node.set(PDFName.of("Annots"), context.obj([context.register(link)]));
  }
  return document.save();
}
