import { expect, test } from "@jest/globals";
import { PDFDocument, PDFName, PDFString } from "@cantoo/pdf-lib";
import { getDocument, VerbosityLevel } from "./pdf-js.ts";

test("letters are read of a font that the file leaves out, by the map that it names (ISO 32000-1, 9.7.5.2, from memory)", async () => {
  const document = await PDFDocument.create();
  const { context } = document;
  const page = document.addPage([300, 100]);
  const system = context.obj({
    Registry: PDFString.of("Adobe"),
    Ordering: PDFString.of("Japan1"),
    Supplement: 2,
  });
  const descriptor = context.register(
    context.obj({
      Type: "FontDescriptor",
      FontName: "KozMinPro-Regular",
      Flags: 4,
      FontBBox: [-200, -300, 1100, 900],
      ItalicAngle: 0,
      Ascent: 800,
      Descent: -200,
      StemV: 80,
    }),
  );
  const font = context.obj({
    Type: "Font",
    Subtype: "Type0",
    BaseFont: "KozMinPro-Regular",
    Encoding: "UniJIS-UTF16-H",
    DescendantFonts: [
      {
        Type: "Font",
        Subtype: "CIDFontType0",
        BaseFont: "KozMinPro-Regular",
        CIDSystemInfo: system,
        FontDescriptor: descriptor,
      },
    ],
  });
  page.node.setFontDictionary(PDFName.of("F1"), context.register(font));
  const hex = [..."潮見表"].map((letter) => letter.charCodeAt(0).toString(16).padStart(4, "0")).join("");
  const content = context.stream(`BT /F1 20 Tf 20 40 Td <${hex}> Tj ET`);
  page.node.set(PDFName.of("Contents"), context.register(content));
  const shown = await getDocument({ data: await document.save(), verbosity: VerbosityLevel.ERRORS }).promise;
  const { items } = await (await shown.getPage(1)).getTextContent();
  await shown.loadingTask.destroy();
  expect(items.map((item) => ("str" in item ? item.str : "")).join("")).toBe("潮見表");
});
