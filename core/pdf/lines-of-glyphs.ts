import type { ShownGlyph } from "./font-letters.ts";
import type { LettersOfLine, MarkBegins, ShownItem } from "./shown-items.ts";

// In shares of the letters' size.
/** A step to the right that is longer is a blank, also where no blank is shown. */
const blank = 0.102;
/** One that is longer still is a gap between two things. */
const gap = 0.6;
/** A longer step to the left begins something else. */
const back = -0.2;
/** Letters that are raised or lowered by more are letters of their own. */
const raised = 0.25;
/** Those that begin further left, and are lower or higher by more, are on another line. */
const otherLine = 0.5;

/** Puts glyphs together, as they are shown one by one, to the letters of lines. */
export class LinesOfGlyphs {
  readonly items: ShownItem[] = [];
  /** What glyphs are added to. */
  private open: LettersOfLine | null = null;
  /** Where the last glyph ended. */
  private pen: { x: number; y: number } | null = null;
  /** Of the last letters. */
  private height = 0;
  private font: unknown = null;
  private isAfterBlank = false;

  begin(mark: Omit<MarkBegins, "kind">): void {
    this.open = null;
    this.items.push({ kind: "begins", ...mark });
  }

  end(): void {
    this.open = null;
    this.items.push({ kind: "ends" });
  }

  /**
   * @param x where it begins, on its baseline, in points, as all lengths
   * @param size of its letters
   * @param font by which letters are told from those of another font or size
   */
  add(
    { words, isBlank, isMark, isRightToLeft }: ShownGlyph,
    x: number,
    y: number,
    width: number,
    size: number,
    font: unknown,
  ): void {
    if (font !== this.font) this.open = null;
    this.font = font;
    if (isBlank) {
      this.isAfterBlank = true;
      return;
    }
    if (!isMark) this.step(x, y, size);
    if (this.open?.isRightToLeft !== isRightToLeft) this.open = null;
    this.open ??= this.begun(x, y, size, isRightToLeft);
    // What is written from right to left is shown from left to right, its last letter first (14.8.2.3.3).
    this.open.words = isRightToLeft ? words + this.open.words : this.open.words + words;
    // Its marks come before their letter.
    if (isMark && isRightToLeft) return;
    // A mark lies over its letter, and may reach further.
    const end = isMark ? Math.max(this.pen?.x ?? x, x + width) : x + width;
    this.open.width = end - this.open.x;
    this.pen = { x: end, y: isMark ? (this.pen?.y ?? y) : y };
  }

  /** What the way from the last glyph to the next means. */
  private step(x: number, y: number, size: number): void {
    const { pen, isAfterBlank } = this;
    this.isAfterBlank = false;
    if (!pen) return;
    const right = (x - pen.x) / size;
    const up = Math.abs(y - pen.y);
    if (up > this.height || (right < back && up > this.height * otherLine)) return this.endLine(x, y);
    if (right < back) {
      this.open = null;
      return;
    }
    if (isAfterBlank || right > blank) {
      if (this.open && !this.open.isRightToLeft && right <= gap) this.open.words += " ";
      else {
        this.open = null;
        this.items.push({ ...letters(" ", pen.x, pen.y, 0), width: Math.max(0, x - pen.x) });
      }
    }
    if (up > this.height * raised) this.open = null;
  }

  private endLine(x: number, y: number): void {
    if (this.open) this.open.endsLine = true;
    else this.items.push({ ...letters("", x, y, 0), endsLine: true });
    this.open = null;
  }

  private begun(x: number, y: number, size: number, isRightToLeft: boolean): LettersOfLine {
    const begun = { ...letters("", x, y, size), isDrawn: true, isRightToLeft };
    this.height = size;
    this.items.push(begun);
    return begun;
  }
}

function letters(words: string, x: number, y: number, height: number): LettersOfLine {
  const unset = { width: 0, isDrawn: false, isRightToLeft: false, endsLine: false };
  return { kind: "letters", words, x, y, height, ...unset };
}
