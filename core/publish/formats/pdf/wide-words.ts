import type { SetInline } from "./set-data.ts";
import { unspacedScripts } from "./breakable.ts";

// Shares of the letters' size that they take in a bold face for headings, about.
const narrow = /[iljtfrI.,:;'’|!()[\]{}/\\-]/;
const wide = /[\p{Lu}\p{N}mw@%&–—]/u;
const widthOf = (sign: string): number => (narrow.test(sign) ? 0.36 : wide.test(sign) ? 0.72 : 0.58);

// A name made of others, or of signs and names, is parted between them, without a hyphen.
const seams =
  /(?<=[/.?&=_#%:;,<>([{@+-])(?![/.?&=_#%:;,<>([{@+-])|(?<=\p{Ll})(?=\p{Lu})|(?<=\p{L})(?=\p{N})/gu;
const word = new RegExp(`[^\\s${unspacedScripts}]+`, "gu");

/**
 * A heading's words, of which those that are wider than a line may be parted, where others stay whole: names of programs
 * between the names that they are made of, and what is too wide still by its syllables.
 * @param line how wide a line is, in sizes of the heading's letters
 */
export function withWideWordsParted(words: readonly SetInline[], line: number): SetInline[] {
  const { seamsAt, isHyphenated } = partsOfWideWords(textOf(words), line);
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

/** At which letters of a text a line may end, and which of its letters belong to what may be parted by its syllables. */
function partsOfWideWords(text: string, line: number): { seamsAt: Set<number>; isHyphenated: boolean[] } {
  const seamsAt = new Set<number>();
  const isHyphenated = Array<boolean>(text.length + 1).fill(false);
  const isTooWide = (part: string): boolean =>
    [...part].reduce((width, sign) => width + widthOf(sign), 0) > line;
  for (const { 0: whole, index } of text.matchAll(word)) {
    if (!isTooWide(whole)) continue;
    let from = index;
    for (const part of whole.split(seams)) {
      if (isTooWide(part)) isHyphenated.fill(true, from, from + part.length);
      from += part.length;
      if (from < index + whole.length) seamsAt.add(from);
    }
  }
  return { seamsAt, isHyphenated };
}

function textOf(words: readonly SetInline[]): string {
  return words.map(shownBy).join("");
}

/** What something in a line shows, as letters; what is no text ends a word, and what shows nothing does not. */
function shownBy(one: SetInline): string {
  if (one.kind === "text") return one.words;
  if (one.kind === "link") return textOf(one.content);
  return one.kind === "anchor" || one.kind === "may-break" ? "" : " ";
}
