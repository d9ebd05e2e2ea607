import { PdfError } from "./errors.ts";
import { escaped, PdfParser } from "./pdf-parser.ts";
import { PdfString, type PdfValue } from "./pdf-values.ts";

const endOfLine = /[\n\r]|$/g;
const codesOf = (signs: string): number[] => [...signs].map((sign) => sign.charCodeAt(0));
const [zero = 0, nine = 0, point = 0, plus = 0, minus = 0] = codesOf("09.+-");
const [opens = 0, closes = 0, escapes = 0, opensList = 0, closesList = 0, percent = 0] = codesOf("()\\[]%");
const blank = 32;

/** What ends a name: blanks and delimiters (7.2.2). */
const ends = new Uint8Array(256);
for (const sign of [0, 9, 10, 12, 13, blank, ...codesOf("()<>[]{}/%")]) ends[sign] = 1;
const begins = new Uint8Array(256);
for (const sign of codesOf("ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz'\"")) begins[sign] = 1;

/** The longest names of operators have so many letters. */
const longest = 3;
const names = new Map<number, string>();

/**
 * Goes through the operators of a page's content (ISO 32000-1, 7.8.2) in their order. A page has thousands, most of them with
 * numbers and short strings: those are read here, sign by sign, and all else as the file's own values are.
 */
export class ContentOperators {
  /** What the operator is given that was read last. */
  operands: PdfValue[] = [];
  /** Where it and what it is given are written. */
  from = 0;
  private at = 0;
  /** Made for what is rare here, such as dictionaries. */
  private readonly others: PdfParser;

  /** @param content one character a byte */
  constructor(private readonly content: string) {
    this.others = new PdfParser(content, 0);
  }

  /** Where the operator that was read last ends. */
  get to(): number {
    return this.at;
  }

  /**
   * The next operator's name; null where no other follows.
   * @throws PdfError `syntax` where there is none, `kind` at a picture between operators (8.9.7)
   */
  next(): string | null {
    this.operands = [];
    this.from = this.at;
    for (;;) {
      this.skipBlanks();
      if (this.at >= this.content.length) return null;
      const name = this.operator();
      if (name === "BI")
        throw new PdfError(
          "kind",
          "A page of the PDF has a picture between operators, which is not read here.",
        );
      if (name !== null) return name;
      this.operands.push(this.operand());
    }
  }

  /** The name of the operator that stands here; null where there is an operand. */
  private operator(): string | null {
    const { content } = this;
    if (!begins[content.charCodeAt(this.at)]) return null;
    let end = this.at + 1;
    while (end < content.length && !ends[content.charCodeAt(end)]) end++;
    const name = end - this.at > longest ? content.slice(this.at, end) : this.shortName(end);
    if (name === "true" || name === "false" || name === "null") return null;
    this.at = end;
    return name;
  }

  /** One string for each name, which need not be made, nor told from others by its letters, each time. */
  private shortName(end: number): string {
    let key = 0;
    for (let at = this.at; at < end; at++) key = (key << 8) | this.content.charCodeAt(at);
    let name = names.get(key);
    if (name === undefined) names.set(key, (name = this.content.slice(this.at, end)));
    return name;
  }

  private operand(): PdfValue {
    const sign = this.content.charCodeAt(this.at);
    if ((sign >= zero && sign <= nine) || sign === minus || sign === point || sign === plus)
      return this.number();
    if (sign === opens) return this.string();
    if (sign === opensList) return this.list();
    this.others.at = this.at;
    const value = this.others.value();
    this.at = this.others.at;
    return value;
  }

  private skipBlanks(): void {
    const { content } = this;
    for (; this.at < content.length; this.at++) {
      const sign = content.charCodeAt(this.at);
      if (sign === percent) {
        endOfLine.lastIndex = this.at;
        endOfLine.test(content);
        this.at = endOfLine.lastIndex;
      } else if (sign > blank || !ends[sign]) break;
    }
  }

  private number(): number {
    const { content } = this;
    const first = content.charCodeAt(this.at);
    if (first === minus || first === plus) this.at++;
    let value = 0;
    let share = 0;
    for (; ; this.at++) {
      const sign = content.charCodeAt(this.at);
      if (sign >= zero && sign <= nine) {
        value = value * 10 + sign - zero;
        share *= 10;
      } else if (sign === point && share === 0) share = 1;
      // Some writers have signs within numbers, which say nothing.
      else if (sign !== minus) break;
    }
    if (share > 1) value /= share;
    return first === minus ? -value : value;
  }

  private list(): PdfValue[] {
    this.at++;
    const values: PdfValue[] = [];
    for (;;) {
      this.skipBlanks();
      if (this.at >= this.content.length) throw new PdfError("syntax", "The PDF has a list without an end.");
      if (this.content.charCodeAt(this.at) === closesList) break;
      values.push(this.operand());
    }
    this.at++;
    return values;
  }

  private string(): PdfString {
    const { content } = this;
    let bytes = "";
    let from = this.at + 1;
    for (let at = from; ; at++) {
      const sign = content.charCodeAt(at);
      if (sign === closes) {
        this.at = at + 1;
        return new PdfString(bytes + content.slice(from, at));
      }
      if (sign !== escapes && sign !== opens && at < content.length) continue;
      const byte = sign === escapes ? octal(content, at + 1) : -1;
      const plain = byte < 0 && sign === escapes ? escaped[content.charAt(at + 1)] : undefined;
      // What else there is, such as strings in strings, is rare.
      if (byte < 0 && plain === undefined) break;
      bytes += content.slice(from, at) + (plain ?? String.fromCharCode(byte));
      at += plain === undefined ? 3 : 1;
      from = at + 1;
    }
    this.others.at = this.at;
    const value = this.others.value() as PdfString;
    this.at = this.others.at;
    return value;
  }
}

/** The byte that three digits tell (7.3.4.2); -1 where they are none. */
function octal(content: string, at: number): number {
  let byte = 0;
  for (let i = at; i < at + 3; i++) {
    const digit = content.charCodeAt(i) - zero;
    if (!(digit >= 0 && digit <= 7)) return -1;
    byte = byte * 8 + digit;
  }
  return byte & 0xff;
}
