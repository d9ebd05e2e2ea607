import type { Node } from "prosemirror-model";
import { unspacedScripts } from "./breakable.ts";

/** Longer words cost the typesetter the square of their length. */
const longest = 5_000;
const lettersShown = 30;
// Scripts that are written without blanks have a line's end after any letter. Split, not matched: to look for a run of
// so many letters from every letter on would itself cost the square.
const ends = new RegExp(`[\\s${unspacedScripts}]+`, "u");

/** What to tell of each word of a chapter that is too long to be set on a page, with its first letters. */
export function longWordsOf(doc: Node): string[] {
  const told: string[] = [];
  doc.descendants((node) => {
    if (!node.isTextblock) return;
    for (const word of node.textBetween(0, node.content.size, " ", " ").split(ends))
      if (word.length > longest)
        told.push(
          `“${word.slice(0, lettersShown)}…” is a word of ${word.length.toLocaleString("en")} letters, which no page can hold. Put blanks into it.`,
        );
  });
  return told;
}
