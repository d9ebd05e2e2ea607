import { ContentOperators } from "./content-operators.ts";
import type { PdfObjects } from "./pdf-objects.ts";
import { fromUtf16, nameOf, PdfRef, PdfString, type PdfDict, type PdfValue } from "./pdf-values.ts";

/** What a code of a font shows. */
export interface ShownGlyph {
  words: string;
  /** How far it moves what follows, in thousandths of the font's size. */
  width: number;
  isBlank: boolean;
  /** A sign that stands on the letter before it and takes no room of its own. */
  isMark: boolean;
  isRightToLeft: boolean;
}

const ordinaryWidth = 1000;
/** Codes of two bytes. */
const lastCode = 0xffff;
// Scripts that run from right to left (Unicode, Bidi_Class R and AL), and signs that say so; their digits do not (AN and EN).
const rightToLeft =
  /(?![\u0660-\u0669\u066b\u066c\u06f0-\u06f9])[\u0590-\u08ff\u200f\ufb1d-\ufdff\ufe70-\ufefe\u{10800}-\u{10fff}\u{1e800}-\u{1efff}]/u;
// What pdf.js tells as several letters or plain ones is told so here.
const joined = /[\u00a0\u00b5\u037e\u0eb3\u2000-\u200a\u202f\u2126\ufb00-\ufb06]/g;

/**
 * The letters of a font whose codes are the numbers of its glyphs, two bytes each (ISO 32000-1, 9.7.5.2: Identity-H), by the
 * map that it brings to Unicode (9.10.3), with their widths (9.7.4.3).
 */
export class FontLetters {
  private readonly glyphs = new Map<number, ShownGlyph>();
  private hasSuchMarks: boolean | undefined;

  private constructor(
    private readonly words: ReadonlyMap<number, string>,
    private readonly widths: ReadonlyMap<number, number>,
    private readonly width: number,
  ) {}

  /** Null for a font of another kind. @throws PdfError where something of it cannot be read */
  static of(objects: PdfObjects, font: PdfDict): FontLetters | null {
    const [below] = objects.several(font.get("DescendantFonts"));
    const toUnicode = font.get("ToUnicode");
    const isRead = nameOf(font.get("Subtype")) === "Type0" && nameOf(font.get("Encoding")) === "Identity-H";
    if (!isRead || below === undefined || !(toUnicode instanceof PdfRef)) return null;
    const glyphs = objects.dictionary(below);
    const width = objects.read(glyphs.get("DW"));
    return new FontLetters(
      lettersByCode(objects.stream(toUnicode)),
      widthsByCode(objects.several(glyphs.get("W")), objects),
      typeof width === "number" ? width : ordinaryWidth,
    );
  }

  /** Whether it has marks of which it says that they stand for their letter, too. */
  get hasMarksWithLetters(): boolean {
    return (this.hasSuchMarks ??= [...this.words.keys()].some((code) => this.isMarkWithLetter(code)));
  }

  /** Whether a code is a mark, which takes no room, and stands for a letter with it. */
  isMarkWithLetter(code: number): boolean {
    return this.widthOf(code) === 0 && /[^\p{M}\p{Cf}]\p{M}/u.test(this.words.get(code) ?? "");
  }

  /** How far a code moves what follows, in thousandths of the font's size. */
  widthOf(code: number): number {
    return this.widths.get(code) ?? this.width;
  }

  /** What a code shows; null for one of which the font does not say it. */
  glyph(code: number): ShownGlyph | null {
    const known = this.glyphs.get(code);
    if (known) return known;
    const words = this.words.get(code);
    if (!words) return null;
    const glyph = {
      // A sign that only says how to write, such as where a word may be divided, is no letter of it.
      words: words.replace(/^\p{Cf}$/u, "").replace(joined, (sign) => sign.normalize("NFKC")),
      width: this.widthOf(code),
      isBlank: /^\s/.test(words),
      isMark: /^\p{Mn}/u.test(words) || this.isMarkWithLetter(code),
      isRightToLeft: rightToLeft.test(words),
    };
    this.glyphs.set(code, glyph);
    return glyph;
  }
}

/** What each code stands for by a map, which is written in operators as a page's content is (9.10.3). */
function lettersByCode(map: string): Map<number, string> {
  const letters = new Map<number, string>();
  const operators = new ContentOperators(map);
  for (let name = operators.next(); name !== null; name = operators.next()) {
    const { operands } = operators;
    if (name === "endbfchar")
      for (let at = 0; at + 1 < operands.length; at += 2)
        letters.set(codeOf(operands[at]), wordsOf(operands[at + 1]));
    if (name === "endbfrange")
      for (let at = 0; at + 2 < operands.length; at += 3) {
        const [first, last, to] = [codeOf(operands[at]), codeOf(operands[at + 1]), operands[at + 2]];
        for (let code = first, i = 0; code <= last; code++, i++)
          letters.set(code, Array.isArray(to) ? wordsOf(to[i]) : following(wordsOf(to), i));
      }
  }
  return letters;
}

function codeOf(value: PdfValue | undefined): number {
  const bytes = value instanceof PdfString ? value.bytes : "";
  return (bytes.charCodeAt(0) << 8) | bytes.charCodeAt(1);
}

function wordsOf(value: PdfValue | undefined): string {
  return value instanceof PdfString ? fromUtf16(value.bytes) : "";
}

/** Letters of which the last is that many further on. */
function following(words: string, by: number): string {
  return words.slice(0, -1) + String.fromCharCode(words.charCodeAt(words.length - 1) + by);
}

/** Either a first code and its and the next ones' widths, or a first and a last code and one width for all. */
function widthsByCode(list: readonly PdfValue[], objects: PdfObjects): Map<number, number> {
  const widths = new Map<number, number>();
  for (let at = 0; at + 1 < list.length;) {
    const first = Number(list[at]);
    const second = objects.read(list[at + 1]);
    if (Array.isArray(second)) {
      second.forEach((width, i) => widths.set(first + i, Number(width)));
      at += 2;
    } else {
      const end = Math.min(Number(second), lastCode);
      for (let code = first; code <= end; code++) widths.set(code, Number(list[at + 2]));
      at += 3;
    }
  }
  return widths;
}
