import { PDFDocument, PDFName, PDFString, StandardFonts } from "@cantoo/pdf-lib";

/** A PDF of pages full of words, with links to the web and to other pages. */
export async function leaflet(pageCount, linkCount) {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.TimesRoman);
  const pages = Array.from({ length: pageCount }, () => document.addPage([420, 595]));
  const words = "low water bares the stone and the walker keeps to its seaward edge where weed is thin".split(
    " ",
  );
  pages.forEach((page, number) => {
    for (let line = 0; line < 38; line++) {
      const text = Array.from(
        { length: 11 },
        (_, i) => words[(number * 7 + line * 11 + i) % words.length],
      ).join(" ");
      page.drawText(text, { x: 50, y: 540 - line * 13, size: 10, font });
    }
  });
  for (let i = 0; i < linkCount; i++) {
    const page = pages[Math.floor((i * pageCount) / linkCount)];
    const line = (i * 5) % 38;
    const dictionary = document.context.obj({
      Type: "Annot",
      Subtype: "Link",
      Rect: [50, 537 - line * 13, 130, 549 - line * 13],
      Border: [0, 0, 0],
      ...(i % 2 === 0 ? { Dest: [pages[(i * 3) % pageCount].ref, "XYZ", 50, 500, null] } : {}),
    });
    if (i % 2 === 1) {
      const action = document.context.obj({ S: "URI" });
      action.set(PDFName.of("URI"), PDFString.of(`https://stone-${i % 250}.hesterley.test/${i}`));
      dictionary.set(PDFName.of("A"), action);
    }
    page.node.addAnnot(document.context.register(dictionary));
  }
  return document.save();
}
