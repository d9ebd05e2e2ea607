import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { mayHoldUnwritable, writableText, writableValue } from "./writable-text.ts";

test.each([
  ["control characters go", "low\0 \x01wa\x1bter\x7f", "low water"],
  ["breaks of lines and pages that stand for themselves are blanks", "low\vwater\fagain", "low water again"],
  ["tabs and ends of lines stay", "a\tb\nc\r\nd", "a\tb\nc\r\nd"],
  ["halves of letters go, and whole ones stay", "a\ud83cb\udf0ac🌊d", "abc🌊d"],
  ["noncharacters go", "a\ufffeb\uffffc\ufdd0d\u{1ffff}e", "abcde"],
  [
    "marks of the order of bytes, of annotations and of objects go",
    "\ufeffa\ufff9b\ufffac\ufffb\ufffc",
    "abc",
  ],
  ["what is read elsewhere as Windows-1252 is read so", "\x93Ebb\x94 \x96 5\x80\x81", "“Ebb” – 5€"],
  [
    "what is not shown for a reason stays",
    "a\u200db\u00adc\u200fd\u2060e\ufffd",
    "a\u200db\u00adc\u200fd\u2060e\ufffd",
  ],
])("%s", (_, given, written) => {
  expect(writableText(given)).toBe(written);
});

// XML 1.0 (fifth edition), production 2.
const char = /^[\t\n\r\u{20}-\u{d7ff}\u{e000}-\u{fffd}\u{10000}-\u{10ffff}]*$/u;

test("any text is one of XML, and stays as it is the second time", () => {
  fc.assert(
    fc.property(fc.string({ unit: "binary" }), fc.array(fc.nat(0xffff)), (text, codes) => {
      const written = writableText(text + String.fromCharCode(...codes));
      expect(written).toMatch(char);
      expect(writableText(written)).toBe(written);
    }),
  );
});

test("JSON may hold such signs wherever making its value writable changes it", () => {
  const strings = fc.string({ unit: "binary" }).map((text) => `${text}\\b`);
  fc.assert(
    fc.property(fc.jsonValue({ depthSize: "small" }), strings, fc.nat(0xffff), (value, text, code) => {
      const whole = [value, { text: text + String.fromCharCode(code) }];
      if (!mayHoldUnwritable(JSON.stringify(whole))) expect(writableValue(whole)).toBe(whole);
    }),
  );
  expect(mayHoldUnwritable(JSON.stringify("Low water at “Sunkfold”, 5 € – ʻebbʼ"))).toBe(false);
});

test("of a document, texts of which nothing is left are gone", () => {
  const doc = {
    type: "paragraph",
    content: [
      { type: "text", text: "\ufeff" },
      { type: "text", text: "Ebb\x01" },
    ],
  };
  expect(writableValue(doc)).toEqual({ type: "paragraph", content: [{ type: "text", text: "Ebb" }] });
});
