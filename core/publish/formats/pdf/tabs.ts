import type { SetInline } from "./set-data.ts";

/** Every so many letters a line of a listing has a stop (CSS Text 3, `tab-size`). */
const stop = 8;

/** A listing's words with blanks for tabs, for which the typesetter has no width. */
export function withTabsSpaced(words: readonly SetInline[]): SetInline[] {
  let column = 0;
  const spaced = (all: readonly SetInline[]): SetInline[] =>
    all.map((one) => {
      if (one.kind === "link") return { ...one, content: spaced(one.content) };
      if (one.kind !== "text") return one;
      let shown = "";
      for (const letter of one.words) {
        const blanks = letter === "\t" ? stop - (column % stop) : 0;
        shown += blanks > 0 ? " ".repeat(blanks) : letter;
        column = letter === "\n" ? 0 : column + (blanks || 1);
      }
      return { ...one, words: shown };
    });
  return spaced(words);
}
