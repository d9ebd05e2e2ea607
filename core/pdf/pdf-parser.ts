import { PdfError } from "./errors.ts";
import { PdfName, PdfRef, PdfString, type PdfDict, type PdfValue } from "./pdf-values.ts";

// Each takes as many signs as there are from a position on.
const blanks = /[\0\t\n\f\r ]*(?:%[^\n\r]*[\0\t\n\f\r ]*)*/y;
const numberSigns = /[+\-.\d]*/y;
const digits = /\d*/y;
const regular = /[^\0\t\n\f\r ()<>[\]{}/%]*/y;
const untilHexEnds = /[^>]*/y;
const percent = "%".charCodeAt(0);
const isNumberSign = /[+\-.\d]/;
/** What a sign behind a backslash stands for in a string (7.3.4.2). */
export const escaped: Readonly<Record<string, string>> = {
  n: "\n",
  r: "\r",
  t: "\t",
  b: "\b",
  f: "\f",
  "(": "(",
  ")": ")",
  "\\": "\\",
};

/** Reads values out of a PDF's text, one character a byte, from a position on (ISO 32000, 7.2 and 7.3). */
export class PdfParser {
  constructor(
    private readonly text: string,
    public at: number,
  ) {}

  /**
   * The value that begins at the position, which is behind it afterwards.
   * @throws PdfError `syntax` where there is none
   */
  value(): PdfValue {
    this.skipBlanks();
    const sign = this.text[this.at];
    if (sign === "/") return new PdfName(this.name());
    if (sign === "(") return this.literalString();
    if (sign === "[") return this.array();
    if (sign === "<") return this.text[this.at + 1] === "<" ? this.dictionary() : this.hexString();
    if (sign !== undefined && isNumberSign.test(sign)) return this.numberOrReference();
    for (const [word, value] of [
      ["true", true],
      ["false", false],
      ["null", null],
    ] as const)
      if (this.takes(word)) return value;
    throw new PdfError("syntax", `The PDF has no value at byte ${this.at}.`);
  }

  /** Whether a word stands at the position, blanks aside; then the position is behind it. */
  takes(word: string): boolean {
    this.skipBlanks();
    if (!this.text.startsWith(word, this.at)) return false;
    this.at += word.length;
    return true;
  }

  /** Whether nothing but blanks is left. */
  isAtEnd(): boolean {
    this.skipBlanks();
    return this.at >= this.text.length;
  }

  /** A number that has no other meaning, as those in tables of objects. */
  integer(): number {
    this.skipBlanks();
    return Number(this.run(numberSigns));
  }

  private skipBlanks(): void {
    // Most of what is read follows what is before it without a blank.
    if (this.text.charCodeAt(this.at) > percent) return;
    blanks.lastIndex = this.at;
    blanks.test(this.text);
    this.at = blanks.lastIndex;
  }

  private run(signs: RegExp): string {
    const start = this.at;
    signs.lastIndex = start;
    signs.test(this.text);
    this.at = signs.lastIndex;
    return this.text.slice(start, this.at);
  }

  private name(): string {
    this.at++;
    const hex = (_: string, code: string): string => String.fromCharCode(parseInt(code, 16));
    const name = this.run(regular);
    return name.includes("#") ? name.replace(/#([0-9a-f]{2})/gi, hex) : name;
  }

  private numberOrReference(): number | PdfRef {
    const number = Number(this.run(numberSigns));
    const after = this.at;
    if (Number.isInteger(number) && number >= 0) {
      this.skipBlanks();
      const generation = this.run(digits);
      if (generation !== "" && this.takes("R")) return new PdfRef(number);
    }
    this.at = after;
    return number;
  }

  private array(): PdfValue[] {
    this.at++;
    const values: PdfValue[] = [];
    while (!this.takes("]")) values.push(this.value());
    return values;
  }

  private dictionary(): PdfDict {
    this.at += 2;
    const entries: PdfDict = new Map();
    while (!this.takes(">>")) {
      this.skipBlanks();
      if (this.text[this.at] !== "/")
        throw new PdfError("syntax", `The PDF has a dictionary without a key at byte ${this.at}.`);
      const key = this.name();
      entries.set(key, this.value());
    }
    return entries;
  }

  private literalString(): PdfString {
    let bytes = "";
    let depth = 0;
    for (;;) {
      const sign = this.text[this.at++];
      if (sign === undefined) throw new PdfError("syntax", "The PDF has a string without an end.");
      if (sign === "\\") bytes += this.escaped();
      else {
        if (sign === "(" && depth++ === 0) continue;
        if (sign === ")" && --depth === 0) return new PdfString(bytes);
        bytes += sign;
      }
    }
  }

  private escaped(): string {
    const octal = /^[0-7]{1,3}/.exec(this.text.slice(this.at, this.at + 3))?.[0];
    if (octal !== undefined) {
      this.at += octal.length;
      return String.fromCharCode(parseInt(octal, 8) & 0xff);
    }
    const sign = this.text[this.at++]!;
    // A line that goes on: its end is not in the string.
    if (sign === "\r" && this.text[this.at] === "\n") this.at++;
    return sign === "\n" || sign === "\r" ? "" : (escaped[sign] ?? sign);
  }

  private hexString(): PdfString {
    this.at++;
    const written = this.run(untilHexEnds).replace(/\s+/g, "");
    this.at++;
    let bytes = "";
    for (let i = 0; i < written.length; i += 2)
      bytes += String.fromCharCode(parseInt(written.slice(i, i + 2).padEnd(2, "0"), 16));
    return new PdfString(bytes);
  }
}
