import type { BookIndex } from "./book-index.ts";

/**
 * What a screen reader calls the return link of a note, the `which`th (from 1) of `count`; null where its
 * own words are name enough. Visible words are kept at the start of the name (WCAG 2.2 SC 2.5.3).
 */
export function returnName(
  { conventions, words }: Pick<BookIndex, "conventions" | "words">,
  which: number,
  count: number,
): string | null {
  const hasLetters = /[\p{L}\p{N}]/u.test(conventions.returnWords);
  if (hasLetters && count === 1) return null;
  const name = hasLetters ? conventions.returnWords : words.backToText;
  return count === 1 ? name : `${name} ${which}`;
}
