import type { PageOfFile } from "../checks/page-of-file.ts";

const longestWords = 80;

/** Links of a page that stay as they are and lead no reader anywhere, as rules are told of them. */
export function deadOf(
  untouched: readonly { from: string | number; words: string; why: string; isDead: boolean }[],
): PageOfFile["dead"] {
  return untouched.flatMap(({ from, words, why, isDead }) =>
    isDead ? [{ id: `left-${from}`.replace(/\W/g, "-"), words: words.slice(0, longestWords), why }] : [],
  );
}
