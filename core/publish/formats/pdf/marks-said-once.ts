import { ContentOperators } from "../../../pdf/content-operators.ts";
import { FontLetters } from "../../../pdf/font-letters.ts";
import type { PdfObjects } from "../../../pdf/pdf-objects.ts";
import {
  nameOf,
  PdfRef,
  PdfString,
  readTextString,
  writeValue,
  type PdfDict,
  type PdfValue,
} from "../../../pdf/pdf-values.ts";

/**
 * Has a PDF say letters with marks once. The typesetter draws marks that lie higher or lower than usual, as those of Arabic
 * and Hebrew do, apart from their letter, and says of the letter and of each mark that it stands for all of them: whoever
 * hears, copies or looks for words finds them doubled. Marks say nothing by it (ISO 32000-1, 14.9.4).
 * @throws PdfError where a page cannot be read
 */
export function sayMarksOnce(objects: PdfObjects, pages: readonly PdfRef[]): void {
  const fonts = new Map<PdfValue, FontLetters | null>();
  for (const ref of pages) {
    const page = objects.dictionary(ref);
    const resources = objects.read(objects.inherited(page, "Resources"));
    const named = resources instanceof Map ? objects.read(resources.get("Font")) : null;
    if (!(named instanceof Map)) continue;
    const ofPage = new Map<string, FontLetters>();
    for (const [name, value] of named) {
      const font = objects.dictionary(value);
      let letters = fonts.get(font);
      if (letters === undefined) fonts.set(font, (letters = FontLetters.of(objects, font)));
      if (letters) ofPage.set(name, letters);
    }
    const [contents, ...more] = objects.several(page.get("Contents"));
    const hasAny = [...ofPage.values()].some((font) => font.hasMarksWithLetters);
    if (!hasAny || more.length > 0 || !(contents instanceof PdfRef)) continue;
    const before = objects.stream(contents);
    const after = new MarksOfContent(before, ofPage).saidOnce();
    if (after !== before) objects.changeStream(contents, after);
  }
}

/** What marked content stands for, and where that is written. */
interface Said {
  from: number;
  to: number;
  properties: PdfDict;
  /** Whether letters are shown within, not marks alone. */
  hasLetters: boolean;
}

/** The operators of a page, with marks that say what their letter says. */
class MarksOfContent {
  private readonly operators: ContentOperators;
  /** What is to stand in place of parts of the content, in their order but for what encloses others. */
  private readonly changes: { from: number; to: number; written: string }[] = [];
  private readonly open: (Said | null)[] = [];
  private font: FontLetters | undefined;

  constructor(
    private readonly content: string,
    private readonly fonts: ReadonlyMap<string, FontLetters>,
  ) {
    this.operators = new ContentOperators(content);
  }

  saidOnce(): string {
    for (let name = this.operators.next(); name !== null; name = this.operators.next()) this.look(name);
    let written = "";
    let at = 0;
    for (const change of this.changes.sort((a, b) => a.from - b.from)) {
      written += this.content.slice(at, change.from) + change.written;
      at = change.to;
    }
    return written + this.content.slice(at);
  }

  private look(name: string): void {
    const { operands } = this.operators;
    if (name === "Tf") this.font = this.fonts.get(nameOf(operands[0]));
    else if (name === "BMC") this.open.push(null);
    else if (name === "BDC") this.open.push(this.saidBy(operands[1]));
    else if (name === "EMC") this.end(this.open.pop() ?? null);
    else if (name === "Tj" || name === "TJ")
      this.show(name === "Tj" ? [operands[0]!] : (operands[0] as PdfValue[]));
  }

  private saidBy(properties: PdfValue | undefined): Said | null {
    const actual = properties instanceof Map ? properties.get("ActualText") : undefined;
    if (!(properties instanceof Map) || !(actual instanceof PdfString)) return null;
    if (!hasLetter(readTextString(actual) ?? "")) return null;
    const { from, to } = this.operators;
    return { from, to, properties, hasLetters: false };
  }

  private end(said: Said | null): void {
    if (!said || said.hasLetters) return;
    const { from, to, properties } = said;
    const silent = new Map(properties).set("ActualText", new PdfString(""));
    this.changes.push({ from, to, written: `\n/Span ${writeValue(silent)} BDC` });
  }

  private show(shown: readonly PdfValue[]): void {
    const { font } = this;
    if (!font) return;
    const saying = this.open.find((one) => one !== null);
    // Runs of marks that say their letter, and of all else; what moves what follows belongs to that.
    const runs: { isMark: boolean; values: PdfValue[] }[] = [];
    let moved: PdfValue[] = [];
    for (const value of shown) {
      if (!(value instanceof PdfString)) {
        moved.push(value);
        continue;
      }
      for (let at = 0; at + 1 < value.bytes.length; at += 2) {
        const code = (value.bytes.charCodeAt(at) << 8) | value.bytes.charCodeAt(at + 1);
        if (saying && font.widthOf(code) !== 0) saying.hasLetters = true;
        const isMark = font.isMarkWithLetter(code);
        let last = runs.at(-1);
        if (last?.isMark !== isMark) runs.push((last = { isMark, values: [] }));
        last.values.push(...moved, new PdfString(value.bytes.slice(at, at + 2)));
        moved = [];
      }
    }
    if (saying || !runs.some(({ isMark }) => isMark)) return;
    runs.at(-1)!.values.push(...moved);
    const written = runs.map(({ isMark, values }) =>
      isMark ? `/Span ${silent} BDC\n${writeValue(values)} TJ\nEMC` : `${writeValue(values)} TJ`,
    );
    const { from, to } = this.operators;
    this.changes.push({ from, to, written: `\n${written.join("\n")}` });
  }
}

const silent = writeValue(new Map([["ActualText", new PdfString("")]]));

function hasLetter(words: string): boolean {
  return /[^\p{M}\p{Cf}]/u.test(words);
}
