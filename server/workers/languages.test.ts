import { expect, test } from "@jest/globals";
import { numbersOf } from "@vennet/core/proof/compare";
import { prove } from "@vennet/core/proof/prove";
import { exportFormats, exportOptions, formats } from "@vennet/core/publish/formats/formats";
import { familyOf } from "@vennet/core/publish/formats/pdf/script-fonts";
import { prepare } from "@vennet/core/publish/prepare";
import { bookInLanguage, sentenceLanguages } from "@vennet/core/test/book-in-languages";
import { bookOf } from "@vennet/core/test/sample-book";
import type { MathElement } from "@vennet/core/manuscript/math";
import { schema } from "@vennet/core/manuscript/schema";
import { scriptName } from "@vennet/core/manuscript/scripts";
import { kept, tool } from "../test/tools.ts";
import { textFonts } from "./fonts.ts";
import { Typesetter } from "./typesetter.ts";

const typesetter = new Typesetter();

test.each(sentenceLanguages)(
  "every link of a book in %s goes out intact in every format",
  async (language) => {
    let lastPages: { name: string; bytes: Uint8Array } | null = null;
    for (const format of exportFormats) {
      const { write, readBack, suffix } = formats[format];
      const options = exportOptions({ format });
      const book = prepare(bookInLanguage(language), options);
      const { bytes, warnings } = await write(book, options, {
        name: `book.${suffix}`,
        lastPages,
        textFonts,
        setPages: (...given) => typesetter.write(...given),
      });
      expect([format, warnings]).toEqual([format, []]);
      if (format === "pdf") lastPages = { name: "book.pdf", bytes };
      const proof = prove(book, await readBack(bytes));
      const wrong = [...proof.rows, ...proof.made.rows].filter(({ verdict }) => verdict !== "intact");
      expect([format, wrong, proof.faults]).toEqual([format, [], []]);
      expect(numbersOf(proof)).toMatchObject({ complete: true, total: 17 });
    }
  },
);

// Unicode Standard Annex 31, table 5 (from memory): the scripts recommended for use in identifiers.
const recommended =
  "Arabic Armenian Bengali Bopomofo Cyrillic Devanagari Ethiopic Georgian Greek Gujarati Gurmukhi Hangul Han Hebrew Hiragana Kannada Katakana Khmer Lao Latin Malayalam Myanmar Oriya Sinhala Tamil Telugu Thaana Thai Tibetan";

test.each(recommended.split(" "))("letters of %s are set, in a font for them", async (script) => {
  const own = new RegExp(`\\p{Script=${script}}(?<=\\p{L})`, "u");
  const letters: string[] = [];
  for (let code = 0x41; letters.length < 30; code++)
    if (own.test(String.fromCodePoint(code))) letters.push(String.fromCodePoint(code));
  const { pdf, warnings } = typesetter.write(bookOf(`# A\n\n${letters.join(" ")}`), true);
  // Some came to Unicode in version 11 and 12, after the fonts were made: a Yiddish ligature, and Lao letters for Pali.
  expect(warnings.filter(({ message }) => !/^Lao: |U\+05EF/.test(message))).toEqual([]);
  const path = kept(`script-${script}.pdf`, Buffer.from(pdf));
  const { output } = await tool("pdffonts", path);
  const isOfBook = ["Latin", "Greek", "Cyrillic"].includes(script);
  expect(output).toContain(
    isOfBook
      ? "Literata"
      : familyOf(script, "en")
          .replace(/ (SC|TC|JP|KR)$/, "")
          .replaceAll(" ", ""),
  );
  expect((await tool("qpdf", "--check", path)).output).toContain("No syntax or stream encoding errors");
});

test("no mark stops a PDF, whatever it is shown on", () => {
  const marks: string[] = [];
  for (let code = 0x80; code < 0x20000; code++)
    if (/\p{M}/u.test(String.fromCodePoint(code))) marks.push(String.fromCodePoint(code));
  expect(marks.length).toBeGreaterThan(2000);
  // Unicode Standard, 2.11: marks by themselves are shown on a blank or on a dotted circle.
  const text = marks.map((mark) => `\u25cc${mark} \u00a0${mark} \u0020${mark} a${mark}`).join(" ");
  expect(typesetter.write(bookOf(`# Marks\n\n${text}`), true).pdf.length).toBeGreaterThan(100_000);
  const signs = "Arabic has \u25cc\u0651\u0650 and ،, Tamil \u25cc\u0bbe, Sanskrit ।";
  expect(typesetter.write(bookOf(`# Signs\n\n${signs}`), true).warnings).toEqual([]);
});

test("no letter of a formula stops a PDF, nor does one without any: those that no font has are told", () => {
  const formula = (children: MathElement["children"]) =>
    schema.node("formula", { math: { name: "math", children } });
  const tokens = ["mi", "mo", "mn", "mtext"] as const;
  const signs: string[] = ["\ue083", "\u01ce", "\u0438", "\u6f6e", "\u0628", "x\u0301", "\u05d0", "√", "∯"];
  // One of every 127 code points, in all kinds of tokens.
  for (let code = 0x80; code < 0x32000; code += 127)
    if (code < 0xd800 || code > 0xdfff) signs.push(String.fromCodePoint(code));
  const words = schema.node("paragraph", null, [
    formula([]),
    formula([{ name: "mspace", children: [] }]),
    ...signs.map((sign) => formula(tokens.map((name) => ({ name, children: [sign] })))),
  ]);
  const book = bookOf("# A\n\nWords");
  const [{ doc }] = book.chapters as [(typeof book.chapters)[number]];
  const chapters = [{ ...book.chapters[0]!, doc: doc.copy(doc.content.replaceChild(1, words)) }];
  const { warnings } = typesetter.write({ ...book, chapters }, true);
  const told = (sign: string) => warnings.filter(({ message }) => message.includes(`“${sign}”`)).length;
  expect(["\ue083", "\u01ce", "\u0438", "\u6f6e", "∯"].map(told)).toEqual([1, 0, 0, 0, 0]);
});

test("no character stops a PDF: those without a shape are told, by their scripts", () => {
  const { chapters, ...book } = bookOf("# A\n\nWords");
  const { doc } = chapters[0]!;
  // One of every 61 code points, each after a letter, so that marks have one.
  let text = "";
  for (let code = 1; code < 0x32000; code += 61)
    if (code < 0xd800 || code > 0xdfff) text += `x${String.fromCodePoint(code)} `;
  const words = schema.node("paragraph", null, [schema.text(text)]);
  const whole = {
    ...book,
    chapters: [{ ...chapters[0]!, doc: doc.copy(doc.content.replaceChild(1, words)) }],
  };
  const { warnings } = typesetter.write(whole, true);
  expect(warnings.length).toBeGreaterThan(100);
  expect(warnings.some(({ message }) => message.startsWith(`${scriptName("Egyptian_Hieroglyphs")}: `))).toBe(
    true,
  );
});
