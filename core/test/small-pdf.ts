import {
  degrees,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFString,
  StandardFonts,
  type PDFPage,
  type PDFRef,
} from "@cantoo/pdf-lib";

/**
 * A PDF of three pages with a link of each sort that files have: the walkers’ guide as a designer might hand it over. The
 * second page is turned, the third is cropped.
 * @param objectStreams whether its objects lie in streams (ISO 32000-1, 7.5.7), as newer programs write them
 */
export async function smallPdf({ objectStreams = true } = {}): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  document.setTitle("Causeways of Hesterley Sound");
  document.setAuthor("Orla Tindrum");
  const font = await document.embedFont(StandardFonts.Helvetica);
  const pages = [0, 1, 2].map(() => document.addPage([400, 600]));
  const [first, second, third] = pages as [PDFPage, PDFPage, PDFPage];
  const [tables, huts] = [
    "Tide tables are kept at the office.",
    "Huts stand on page 3, and the map hangs there.",
  ];
  first.drawText(tables, { x: 40, y: 500, size: 12, font });
  first.drawText(huts, { x: 40, y: 470, size: 12, font });
  first.drawText("See https://bare.hesterley.example/sands before you go.", {
    x: 40,
    y: 440,
    size: 12,
    font,
  });
  second.drawText("Refuges on stilts", { x: 60, y: 300, size: 14, font });
  second.setRotation(degrees(90));
  third.drawText("The huts of the outer sands", { x: 80, y: 520, size: 14, font });
  third.setCropBox(50, 50, 300, 500);
  const { context } = document;
  const link = (page: PDFPage, entries: Record<string, unknown>, direct = false): PDFRef | null => {
    const dictionary = context.obj({ Type: "Annot", Subtype: "Link", Border: [0, 0, 0] });
    for (const [name, value] of Object.entries(entries))
      dictionary.set(PDFName.of(name), context.obj(value as Parameters<typeof context.obj>[0]));
    const ref = direct ? null : context.register(dictionary);
    const there = page.node.Annots();
    if (there) there.push(ref ?? dictionary);
    else page.node.set(PDFName.of("Annots"), context.obj([ref ?? dictionary]));
    return ref;
  };
  /** The rectangle around words of a line that begins at x. */
  const under = (line: string, words: string, x: number, y: number): number[] => {
    const left = x + font.widthOfTextAtSize(line.slice(0, line.indexOf(words)), 12);
    return [left - 1, y - 4, left + font.widthOfTextAtSize(words, 12) + 1, y + 12];
  };
  const uri = (address: string): Record<string, unknown> => ({
    Type: "Action",
    S: "URI",
    URI: PDFString.of(address),
  });
  link(first, {
    Rect: under(tables, "Tide tables", 40, 500),
    A: uri("https://tides.hesterley.example/tables?day=1"),
    Contents: PDFHexString.fromText("Tide tables – today’s"),
  });
  // Two lines, a frame of dashes, to a spot of another page.
  const [office, stand] = [under(tables, "office.", 40, 500), under(huts, "Huts stand", 40, 470)];
  link(first, {
    Rect: [stand[0], stand[1], office[2], office[3]],
    QuadPoints: [office, stand].flatMap(([left, low, right, high]) => [
      left,
      high,
      right,
      high,
      left,
      low,
      right,
      low,
    ]),
    Dest: [third.ref, "XYZ", 80, 540, null],
    Border: [0, 0, 2, [3, 2]],
    C: [1, 0, 0],
  });
  link(first, { Rect: under(huts, "the map", 40, 470), A: { S: "GoTo", D: PDFString.of("huts") } }, true);
  link(first, { Rect: [10, 10, 30, 30], A: { S: "Launch", F: PDFString.of("setup.exe") } });
  link(first, {
    Rect: [40, 10, 60, 30],
    A: { S: "GoToR", F: PDFString.of("maps.pdf"), D: [4, "Fit"] },
    BS: { W: 1.5, S: "U" },
    C: [0.2],
  });
  link(second, { Rect: [58, 296, 180, 314], A: uri("mailto:clerk@causeways.example?subject=Huts") });
  link(second, { Rect: [200, 296, 260, 314], Dest: [context.obj({}), "Fit"] });
  const names = context.obj({ Names: [PDFString.of("huts"), [third.ref, "FitH", 535]] });
  document.catalog.set(PDFName.of("Names"), context.obj({ Dests: names }));
  const outline = context.obj({ Type: "Outlines", Count: 1 });
  const outlineRef = context.register(outline);
  const entry = context.register(
    context.obj({
      Title: PDFHexString.fromText("Refuges – on stilts"),
      Parent: outlineRef,
      Dest: [second.ref, "XYZ", 0, 320, null],
    }),
  );
  outline.set(PDFName.of("First"), entry);
  outline.set(PDFName.of("Last"), entry);
  document.catalog.set(PDFName.of("Outlines"), outlineRef);
  return document.save({ useObjectStreams: objectStreams });
}
