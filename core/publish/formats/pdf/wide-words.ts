import type { SetInline } from "./set-data.ts";
import { unspacedScripts } from "./breakable.ts";
import { mostWidthOf, widthOfCode, widthOfSign } from "./letter-widths.ts";

// A name made of others, or of signs and names, is parted between them, without a hyphen.
const seams =
  /(?<=[/.?&=_#%:;,<>([{@+-])(?![/.?&=_#%:;,<>([{@+-])|(?<=\p{Ll})(?=\p{Lu})|(?<=\p{L})(?=\p{N})/gu;
const word = new RegExp(`[^\\s${unspacedScripts}]+`, "gu");

/**
 * Words in a line, of which those that are wider than a line may be parted, where others stay whole: names of programs
 * between the names that they are made of, and what is too wide still by its syllables; in code, which has none, anywhere.
 * @param line how wide a line is, in sizes of these words' letters
 * @param isListing whether all of them are code
 */
export function withWideWordsParted(
  words: readonly SetInline[],
  line: number,
  isListing = false,
): SetInline[] {
  const letters = lettersOf(words, isListing);
  if (mostWidthOf(letters.text.length) <= line) return [...words];
  const { seamsAt, isHyphenated } = partsOfWideWords(letters, line);
  if (seamsAt.size === 0 && !isHyphenated.includes(true)) return [...words];
  let at = 0;
  /** What becomes of things in a line, and whether a line may end behind them. */
  const parted = (all: readonly SetInline[]): { content: SetInline[]; mayEnd: boolean } => {
    const content: SetInline[] = [];
    let mayEnd = false;
    for (const one of all) {
      if (mayEnd) content.push({ kind: "may-break" });
      mayEnd = false;
      if (one.kind === "link") {
        const inner = parted(one.content);
        content.push({ ...one, content: inner.content });
        mayEnd = inner.mayEnd;
        continue;
      }
      const shown = shownBy(one);
      if (one.kind !== "text") {
        content.push(one);
        at += shown.length;
        continue;
      }
      let piece = "";
      const put = (): void => {
        if (piece === "") return;
        const isParted = isHyphenated[at - 1]!;
        content.push({ ...one, words: piece, ...(isParted ? { parted: true as const } : {}) });
        piece = "";
      };
      for (const sign of one.words) {
        if (piece !== "" && isHyphenated[at] !== isHyphenated[at - 1]) put();
        piece += sign;
        at += sign.length;
        mayEnd = seamsAt.has(at);
        if (!mayEnd) continue;
        put();
        content.push({ kind: "may-break" });
      }
      put();
      // Behind a link's last words a line ends outside of the link.
      if (mayEnd) content.pop();
    }
    return { content, mayEnd };
  };
  return parted(words).content;
}

/** What words in a line show, letter by letter, with where it is code. */
interface Letters {
  text: string;
  isCode: boolean[];
}

/** At which letters of a text a line may end, and which of its letters belong to what may be parted by its syllables. */
function partsOfWideWords(
  { text, isCode }: Letters,
  line: number,
): { seamsAt: Set<number>; isHyphenated: boolean[] } {
  const seamsAt = new Set<number>();
  const isHyphenated = Array<boolean>(text.length + 1).fill(false);
  const isTooWide = (part: string, from: number): boolean => {
    let width = 0;
    let at = from;
    for (const sign of part) {
      width += widthOfSign(sign, isCode[at]!);
      at += sign.length;
    }
    return width > line;
  };
  const fitting = Math.max(1, Math.floor(line / widthOfCode));
  for (const { 0: whole, index } of text.matchAll(word)) {
    if (!isTooWide(whole, index)) continue;
    let from = index;
    for (const part of whole.split(seams)) {
      const to = from + part.length;
      if (isTooWide(part, from)) {
        if (isCode[from]) for (let at = from + fitting; at < to; at += fitting) seamsAt.add(at);
        else isHyphenated.fill(true, from, to);
      }
      from = to;
      if (from < index + whole.length) seamsAt.add(from);
    }
  }
  return { seamsAt, isHyphenated };
}

function lettersOf(words: readonly SetInline[], isListing: boolean): Letters {
  const isCode: boolean[] = [];
  const shown = (all: readonly SetInline[]): string =>
    all
      .map((one) => {
        if (one.kind === "link") return shown(one.content);
        const own = shownBy(one);
        const inCode = isListing || (one.kind === "text" && one.marks?.includes("code") === true);
        for (let i = 0; i < own.length; i++) isCode.push(inCode);
        return own;
      })
      .join("");
  return { text: shown(words), isCode };
}

/** What something in a line that is no link shows, as letters; what is no text ends a word, and what shows nothing does not. */
function shownBy(one: Exclude<SetInline, { kind: "link" }>): string {
  if (one.kind === "text") return one.words;
  return one.kind === "anchor" || one.kind === "may-break" ? "" : " ";
}
