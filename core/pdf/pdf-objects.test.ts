import { describe, expect, test } from "@jest/globals";
import { PdfParser } from "./pdf-parser.ts";
import { PdfName, PdfRef, PdfString, textString, uriString, writeValue } from "./pdf-values.ts";

const read = (text: string) => new PdfParser(text, 0).value();

describe("values of a PDF (ISO 32000, 7.3; examples of that section from memory)", () => {
  test.each([
    ["true", true],
    ["null", null],
    ["-98", -98],
    ["+17", 17],
    ["4.", 4],
    ["-.002", -0.002],
    ["/A;Name_With-Various***Characters?", new PdfName("A;Name_With-Various***Characters?")],
    ["/Lime#20Green", new PdfName("Lime Green")],
    [
      "(Strings may contain balanced parentheses ( ) and so on)",
      new PdfString("Strings may contain balanced parentheses ( ) and so on"),
    ],
    ["(These two strings \\\nare the same.)", new PdfString("These two strings are the same.")],
    ["(\\245307\\53\\)\\n)", new PdfString("\u00a5307+)\n")],
    ["<901FA>", new PdfString("\u0090\u001f\u00a0")],
    ["12 0 R", new PdfRef(12)],
    [
      "[549 3.14 false (Ralph) /SomeName 3 0 R]",
      [549, 3.14, false, new PdfString("Ralph"), new PdfName("SomeName"), new PdfRef(3)],
    ],
    [
      "<</Type /Example % a comment\n/Sub<</Item 0.4>>>>",
      new Map<string, unknown>([
        ["Type", new PdfName("Example")],
        ["Sub", new Map([["Item", 0.4]])],
      ]),
    ],
  ])("%s", (text, value) => {
    expect(read(text)).toEqual(value);
    // What is written is read as what it was.
    expect(read(writeValue(value as never))).toEqual(value);
  });

  test("words are UTF-16 with a mark, addresses ASCII", () => {
    expect(writeValue(textString("Ü 🌊"))).toBe("<FEFF00DC0020D83CDF0A>");
    expect(writeValue(uriString("https://a.example/(b)\\é"))).toBe("(https://a.example/\\(b\\)\\\\%C3%A9)");
  });

  test.each(["", ">>", "<< 1 2 >>", "(no end"])("“%s” is no value, and is told as such", (text) => {
    expect(() => read(text)).toThrow(expect.objectContaining({ code: "syntax" }));
  });
});
