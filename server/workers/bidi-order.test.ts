import { expect, test } from "@jest/globals";
import bidiFactory from "bidi-js";
import { getDocument } from "@vennet/core/pdf/pdf-js";
import { bookOf } from "@vennet/core/test/sample-book";
import { textDirection, type Direction } from "@vennet/core/manuscript/direction";
import { Typesetter } from "./typesetter.ts";

interface Bidi {
  getEmbeddingLevels(text: string, direction: Direction): unknown;
  getReorderedString(text: string, levels: unknown): string;
}
const bidi = (bidiFactory as unknown as () => Bidi)();

// Brackets are told as the letters that they are, and shown mirrored (rule L4).
const unseen = /[\s\u200c()]/g;

/** The letters of the lines of a PDF's last page as they stand on it, from left to right. */
async function linesShown(pdf: Uint8Array): Promise<string[]> {
  const document = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;
  const { items } = await (await document.getPage(document.numPages)).getTextContent();
  const lines = new Map<number, { x: number; letters: string }[]>();
  for (const item of items) {
    if (!("str" in item) || item.str.trim() === "") continue;
    const [, , , , x, y] = item.transform as number[];
    const shown = item.dir === "rtl" ? [...item.str].reverse().join("") : item.str;
    lines.set(Math.round(y!), [...(lines.get(Math.round(y!)) ?? []), { x: x!, letters: shown }]);
  }
  return [...lines.values()].map((pieces) =>
    pieces
      .sort((a, b) => a.x - b.x)
      .map(({ letters }) => letters)
      .join("")
      .replace(unseen, ""),
  );
}

const paragraphs = [
  "שביל הגאות של Hesterley Sound פתוח",
  "The path שביל הגאות is open",
  "קראו את טבלת הגאות בעמוד 12 לפני 2026",
  "راه در سال 1403 باز است",
  "Hesterley Tides راه در هنگام جزر باز است و ما می‌رویم",
  "اقرأ (جدول المد) قبل أن تمشي",
];

// Unicode Standard Annex 9, rule L2, as bidi-js has it, which is tested with Unicode's own BidiCharacterTest.
test.each(paragraphs)("“%s” stands in a PDF in the order of the bidirectional algorithm", async (text) => {
  for (const language of ["en", "he"]) {
    const shown = await linesShown(new Typesetter().write(bookOf(`# A\n\n${text}`, { language }), true).pdf);
    const levels = bidi.getEmbeddingLevels(text, textDirection(text, language === "he" ? "rtl" : "ltr"));
    const wanted = bidi.getReorderedString(text, levels).replace(unseen, "");
    expect(shown.map((line) => line.normalize("NFKC"))).toContain(wanted);
  }
});
