import { expect, test } from "@jest/globals";
import { prove } from "@vennet/core/proof/prove";
import { readDocx } from "@vennet/core/publish/formats/docx/read-back";
import { writeDocx } from "@vennet/core/publish/formats/docx/write-docx";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import { schema } from "@vennet/core/manuscript/schema";
import { bookWith, chapter, text } from "@vennet/core/test/book-of-places";
import { strFromU8, unzipSync } from "fflate";
import { kept, tool } from "../test/tools.ts";
import { Typesetter } from "./typesetter.ts";

const linked = (words: string, more: object) =>
  schema.text(words, [
    schema.mark("link", {
      id: words,
      destination: { kind: "web", address: `https://${words}.example/` },
      ...more,
    }),
  ]);
const look = { colour: "#7a1fa2", underline: "dotted", bold: true };
const book = bookWith([
  chapter("c", "T", text(linked("plain", {}), " and ", linked("own", { look }), " end.")),
]);

test("a link's own look is set in the PDF, as poppler reads its colours", async () => {
  const { pdf } = new Typesetter().write(book, true);
  const path = kept("own-looks.pdf", Buffer.from(pdf));
  const { output: xml } = await tool("pdftohtml", "-xml", "-i", "-stdout", path);
  const colourOf = (words: string): string | undefined => {
    const font = new RegExp(`font="(\\d+)"[^>]*>(?:<[^>]*>)*${words}`).exec(xml)?.[1];
    return new RegExp(`<fontspec id="${font}"[^>]*color="([^"]*)"`).exec(xml)?.[1];
  };
  expect(colourOf("own")).toBe("#7a1fa2");
  expect(colourOf("plain")).toBe(book.looks.web.colour);
  expect(prove(book, await readPdf(pdf)).complete).toBe(true);
});

const marks = ["strong", "emphasis", "code", "superscript", "subscript", "strike", "underline", "small_caps"];

test.each(marks)(
  "words with the mark “%s” and any other are set, plain and as links, in a tagged PDF",
  async (mark) => {
    const words = marks.flatMap((other, i) => {
      const both = [...new Set([mark, other])].map((name) => schema.mark(name));
      const plain = schema.text("low water, ", both);
      return [plain, linked(`a${i}`, {}), linked(`b${i}`, { look })].map((node) =>
        node.mark(both.reduce((all, one) => one.addToSet(all), node.marks)),
      );
    });
    const marked = bookWith([chapter("c", "T", text(...words, " end."))]);
    const { pdf } = new Typesetter().write(marked, true);
    expect(prove(marked, await readPdf(pdf))).toMatchObject({ complete: true, total: 2 * marks.length });
  },
);

test("a link's own look is set in the text document", async () => {
  const { bytes } = await writeDocx(book, "looks.docx");
  const xml = strFromU8(unzipSync(bytes)["word/document.xml"]!);
  const run = /<w:rPr>(?:(?!<w:rPr>).)*?<w:t[^>]*>own<\/w:t>/s.exec(xml)![0];
  expect(run).toContain('<w:color w:val="7a1fa2"/>');
  expect(run).toContain('<w:u w:val="dotted"/>');
  expect(run).toContain("<w:b/>");
  expect(prove(book, await readDocx(bytes)).complete).toBe(true);
});
