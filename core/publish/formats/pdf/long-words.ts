import type { Node } from "prosemirror-model";
import { unspacedScripts } from "./breakable.ts";

/** Longer words cost the typesetter the square of their length. */
const longest = 5_000;
const lettersShown = 30;
// Scripts that are written without blanks have a line's end after any letter. Split, not matched: to look for a run of
// so many letters from every letter on would itself cost the square.
const ends = new RegExp(`([\\s${unspacedScripts}]+)`, "u");

/** A word that is too long to be set on a page: what to tell of it, and where it stands in the document. */
interface LongWord {
  told: string;
  from: number;
  to: number;
}

/** Each word of a chapter that is too long to be set on a page, told with its first letters. */
export function longWordsOf(doc: Node): LongWord[] {
  const found: LongWord[] = [];
  doc.descendants((node, position) => {
    if (!node.isTextblock) return;
    // What is no text takes one place in the document, and is one blank here.
    let from = position + 1;
    // Words, and between them their ends.
    const pieces = node.textBetween(0, node.content.size, " ", " ").split(ends);
    for (const [i, { length }] of pieces.entries()) {
      if (i % 2 === 0 && length > longest) {
        const told = `“${pieces[i]!.slice(0, lettersShown)}…” is a word of ${length.toLocaleString("en")} letters, which no page can hold. Put blanks into it.`;
        found.push({ told, from, to: from + length });
      }
      from += length;
    }
  });
  return found;
}
