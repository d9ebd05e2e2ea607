import type { Node } from "prosemirror-model";
import type { Book } from "../../../manuscript/book.ts";

import type { PageBreak } from "../../xhtml/page-context.ts";

/** A page of an exported PDF: its printed number, and the first words of its running text. */
export interface PageStart {
  label: string;
  words: string;
}

/** Where the pages of a PDF begin. */
export interface PageBreaks {
  /** By the index of each chapter. */
  inChapters: Map<number, PageBreak[]>;
  /** The labels of those before the text: its list of contents. */
  before: string[];
}

// So many letters, found in order, are one place of a book; fewer may stand in many, unless they are looked for between
// two places that are known.
const telling = 32;
const leastTelling = 12;
const tellingBetween = [20, 12, 8];
const leastWhole = 3;
const mostWordsDropped = 6;

/**
 * Finds where the pages of a PDF begin in the text that it was made from, by their first words in order. A page of which
 * the text has nothing, since it begins in a note or has changed since, begins where the next does.
 */
export function findPageBreaks(book: Pick<Book, "chapters">, pages: readonly PageStart[]): PageBreaks {
  if (pages.length === 0) return { inChapters: new Map(), before: [] };
  const { letters, offsets, starts } = lettersOfBook(book);
  // A page before the text may have the number of one in it.
  const own = pages.filter((page) => pages.findLast(({ label }) => label === page.label) === page);
  let from = 0;
  const found = own.map(({ words }) => {
    const at = find(letters, words, from);
    if (at !== -1) from = at + 1;
    return at;
  });
  let last = -1;
  own.forEach(({ words }, i) => {
    const next = found.slice(i + 1).find((at) => at !== -1) ?? letters.length;
    if (found[i] === -1) found[i] = findBetween(letters, words, last + 1, next);
    last = Math.max(last, found[i]!);
  });
  const breaks: PageBreaks = { inChapters: new Map(), before: [] };
  own.forEach(({ label }, i) => {
    const isBefore = found.slice(0, i + 1).every((at) => at === -1);
    if (isBefore) {
      breaks.before.push(label);
      return;
    }
    const at = found.slice(i).find((one) => one !== -1) ?? letters.length - 1;
    const chapter = starts.findLastIndex((start) => start <= at);
    const list = breaks.inChapters.get(chapter) ?? [];
    list.push({ offset: offsets[at]!, label });
    breaks.inChapters.set(chapter, list);
  });
  return breaks;
}

/** The first words may be a number, or what a cross-reference says, neither of which is in the text. */
function find(letters: string, words: string, from: number): number {
  const parts = words.split(/\s+/);
  for (let dropped = 0; dropped <= mostWordsDropped; dropped++) {
    const wanted = lettersIn(parts.slice(dropped).join(" ")).slice(0, telling);
    if (wanted.length < leastTelling) return -1;
    const at = letters.indexOf(wanted, from);
    if (at !== -1) return at;
  }
  return -1;
}

/** The same where only a part of the text can have them. */
function findBetween(letters: string, words: string, from: number, to: number): number {
  const part = letters.slice(from, to);
  const parts = words.split(/\s+/);
  for (let dropped = 0; dropped < parts.length && part !== ""; dropped++) {
    const all = lettersIn(parts.slice(dropped).join(" "));
    // All that a page has may be less.
    const lengths =
      dropped === 0 && all.length >= leastWhole ? [...tellingBetween, all.length] : tellingBetween;
    for (const length of lengths) {
      const at = all.length < length ? -1 : part.indexOf(all.slice(0, length));
      if (at !== -1) return from + at;
    }
  }
  return -1;
}

/** The letters of the whole text, the place of each in its chapter's text, and where each chapter begins. */
function lettersOfBook({ chapters }: Pick<Book, "chapters">): {
  letters: string;
  offsets: number[];
  starts: number[];
} {
  let letters = "";
  const offsets: number[] = [];
  const starts: number[] = [];
  for (const { doc } of chapters) {
    starts.push(letters.length);
    let offset = 0;
    doc.descendants((node: Node) => {
      if (node.type.name === "note") return false;
      if (!node.isText) return true;
      for (const character of node.text!) {
        const folded = lettersIn(character);
        for (let i = 0; i < folded.length; i++) offsets.push(offset);
        letters += folded;
        offset += character.length;
      }
      return false;
    });
  }
  return { letters, offsets, starts };
}

function lettersIn(text: string): string {
  return text.normalize("NFKC").replace(/[^\p{L}]+/gu, "");
}
