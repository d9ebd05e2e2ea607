import type { Node } from "prosemirror-model";
import type { Book } from "../../../manuscript/book.ts";

import type { PageBreak } from "../../xhtml/page-context.ts";

/** A page of an exported PDF: its printed number, and the first words of its running text. */
export interface PageStart {
  label: string;
  words: string;
}

// So many letters, found in order, are one place of a book; fewer may stand in many.
const telling = 32;
const leastTelling = 12;
const mostWordsDropped = 6;

/**
 * Finds where the pages of a PDF begin in the text that it was made from, by their first words in order. A page
 * that begins in a note, in a contents list, or in text that has changed since has no break.
 * @returns the breaks of each chapter, by its index
 */
export function findPageBreaks(
  book: Pick<Book, "chapters">,
  pages: readonly PageStart[],
): Map<number, PageBreak[]> {
  const { letters, offsets, starts } = lettersOfBook(book);
  const breaks = new Map<number, PageBreak[]>();
  let from = 0;
  // A page before the text may have the number of one in it.
  const last = pages.filter((page) => pages.findLast(({ label }) => label === page.label) === page);
  for (const { label, words } of last) {
    const at = find(letters, words, from);
    if (at === -1) continue;
    from = at + 1;
    const chapter = starts.findLastIndex((start) => start <= at);
    const list = breaks.get(chapter) ?? [];
    list.push({ offset: offsets[at]!, label });
    breaks.set(chapter, list);
  }
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
