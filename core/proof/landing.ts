import type { Node } from "prosemirror-model";
import { literalPattern } from "../manuscript/literal-pattern.ts";
import type { IndexedPlace } from "../manuscript/book-index.ts";
import type { Landing } from "./exported-link.ts";
import { lettersOf } from "./letters.ts";
import { nodeAt, resolved } from "../manuscript/positions.ts";

// So many letters tell one place from the next, and still stand on one line of a narrow cell.
const compared = 12;
/** Fewer letters at the end of a page say nothing. */
const leastBegun = 2;

/** As many characters of the text at a landing place are worth reading. */
export const landingLength = 240;

/**
 * The words that ought to stand where a link to a place lands; null where a place has none of its own.
 * @param inPages whether pages are landed on, where an anchor inside a heading leads to the heading
 */
export function landingWords(place: IndexedPlace, doc: Node, inPages: boolean): string | null {
  const words = place.kind === "signposts" ? place.text : wordsAt(place, doc, inPages);
  return isTelling(words) || (place.kind === "anchor" && hasSigns(words)) ? words : null;
}

function wordsAt({ kind, position }: IndexedPlace, doc: Node, inPages: boolean): string {
  const node = nodeAt(doc, position);
  if (!node) return "";
  if (kind !== "anchor") return firstWords(node.isTextblock ? node : (firstText(node) ?? node), 0);
  const { parent, index } = resolved(doc, position);
  const isHeading = parent.type.name === "heading" || parent.type.name === "title";
  const after = inPages && isHeading ? "" : firstWords(parent, index);
  // What is read where a formula stands is the formula, whose letters each format says in its own way.
  const formula = formulaAt(parent, index);
  if (formula && !isHeading && (!isTelling(after) || formula.attrs["display"])) return "";
  // The last letter of a word is seen with the rest of it.
  if (hasSigns(after)) return inPages && !isTelling(after) ? begunWord(parent, index) + after : after;
  // On a page its line is seen, the last of a paragraph say; elsewhere the block.
  const before = inPages && !isHeading ? lastWord(parent, index) : null;
  return before ?? firstWords(parent, 0);
}

/** The formula with which goes on what stands from somewhere in a block. */
function formulaAt(block: Node, from: number): Node | null {
  const isNothing = (one: Node): boolean =>
    one.type.name === "anchor" || (one.isText && one.text!.trim() === "");
  const next = block.children.slice(from).find((one) => !isNothing(one));
  return next?.type.name === "formula" ? next : null;
}

function firstText(node: Node): Node | null {
  let found: Node | null = null;
  node.descendants((inner) => {
    if (inner.isTextblock && inner.textContent.trim() !== "") found ??= inner;
    return found === null;
  });
  return found;
}

/** So many letters of a word are not parted at a line's end (common practice). */
const unparted = 3;

/**
 * The end of the last word before something in a block; empty where that may stand on another line than the word, null
 * where there is none.
 */
function lastWord(block: Node, until: number): string | null {
  let isApart = false;
  for (const inline of block.children.slice(0, until).reverse()) {
    if (inline.type.name === "anchor") continue;
    const last = inline.isText ? inline.text!.split(/[^\S\u00a0]+/).findLast(hasSigns) : undefined;
    if (last !== undefined)
      return isApart ? "" : isTelling(last) ? withoutDigits(last).slice(-unparted) : lettersOf(last);
    // A line may end before a picture, say.
    isApart ||= !inline.isText;
  }
  return isApart ? "" : null;
}

/** The letters of a word that begins before something in a block and goes on behind it. */
function begunWord(block: Node, until: number): string {
  const before = block.children.slice(0, until).findLast(({ type }) => type.name !== "anchor");
  return before?.isText ? /[\p{L}\p{M}\p{N}]*$/u.exec(before.text!)![0] : "";
}

/** A block's first words: what a number or another text stands between is not read on. */
function firstWords(block: Node, from: number): string {
  let words = "";
  for (const inline of block.children.slice(from)) {
    if (inline.isText) words += inline.text!;
    else if (inline.type.name !== "anchor" && isTelling(words)) break;
    // A letter by itself on a line is read on.
    else if (inline.type.name === "hard_break") words += " ";
    else if (inline.type.name !== "anchor") words = "";
  }
  return words.trim();
}

/** Whether words are enough to tell a place from others by. */
export function isTelling(words: string): boolean {
  return withoutDigits(words).length >= 2;
}

/** Whether something can be read that is no punctuation: a reader who lands on it sees no word before it. */
export function hasSigns(words: string): boolean {
  return lettersOf(words) !== "";
}

/**
 * Whether a jump lands on the words that ought to stand there, line by line or in its column.
 * @param inPages whether pages are landed on
 */
export function landsAt(
  expected: string | null,
  { landing, inColumns = [] }: Landing,
  inPages: boolean,
): boolean {
  return landing !== null && [landing, ...inColumns].some((found) => landsRight(expected, found, inPages));
}

/**
 * Whether the words that an exported file has at a landing place are those that ought to stand there.
 * @param found what stands there, the line on which a reader lands before all others; theirs begin on it,
 * numbers and signs before them aside
 * @param inPages whether pages are landed on, where words may go on overleaf
 */
export function landsRight(expected: string | null, found: string, inPages: boolean): boolean {
  if (expected === null) return true;
  // The number of a note, say, which no word follows.
  if (!isTelling(expected)) return holdsEach(expected, inPages ? found : found.split("\n")[0]!);
  // A number before them may stand at the end of a line, and they on the next.
  return (
    landsOn(withoutDigits, expected, found, inPages) ||
    (/^\P{L}*\p{N}/u.test(expected) && landsOn(lettersOf, expected, found, inPages))
  );
}

function landsOn(
  comparable: (text: string) => string,
  expected: string,
  found: string,
  inPages: boolean,
): boolean {
  const lines = found.split("\n").map(comparable).filter(Boolean);
  const there = lines.join("");
  const begin = comparable(expected).slice(0, compared);
  const at = there.indexOf(begin);
  return lines.length > 0 && (at === -1 ? inPages && goesOn(begin, there, lines[0]!) : at < lines[0]!.length);
}

/** Whether words begin on the last line of a page and go on overleaf. */
function goesOn(begin: string, there: string, first: string): boolean {
  for (let length = begin.length - 1; length >= leastBegun; length--)
    if (there.endsWith(begin.slice(0, length))) return there.length - length < first.length;
  return false;
}

/** A text's letters and signs, by which headings are compared whose numbers a format writes in its own way. */
function withoutDigits(text: string): string {
  return lettersOf(text).replace(/\p{N}+/gu, "");
}

/** Whether each number and word of a text stands in another as a whole. */
function holdsEach(text: string, found: string): boolean {
  const signs = text.normalize("NFKC").match(/\p{N}+|[\p{L}\p{S}]+/gu) ?? [];
  return signs.every((sign) => {
    const same = /^\p{N}/u.test(sign) ? "\\p{N}" : "[\\p{L}\\p{S}]";
    return new RegExp(`(?<!${same})${literalPattern(sign)}(?!${same})`, "iu").test(found.normalize("NFKC"));
  });
}
