/**
 * The source of a regular expression that matches words to the letter, whichever flags it has: with `u` only signs of its syntax
 * may be escaped, and no hyphen is one outside of a class (ECMA-262, 22.2.1).
 */
export function literalPattern(words: string): string {
  return words.replace(/[\\^$.*+?()[\]{}|/]/g, "\\$&");
}
