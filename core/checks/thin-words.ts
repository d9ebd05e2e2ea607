import type { LinkRule } from "./finding.ts";

/**
 * What is enough to read: two letters or digits, one digit, one sign of a script in which it is a word, or a capital, by
 * itself or with a sign behind it, as entries of an index, grades and languages for programs are called.
 */
const isEnough =
  /[\p{L}\p{N}].*?[\p{L}\p{N}]|\p{N}|[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]|^\p{Lu}[#+*]*$/su;

/** A link on punctuation or one letter alone. */
export const thinWords: LinkRule = {
  id: "thin-words",
  title: "The words are a sign or a single letter",
  severity: "fix",
  source: "WCAG 2.2 SC 2.4.4 and 2.5.8: such a link is hard to understand and to hit",
  find: (links) =>
    links.flatMap(({ id, text, on }) => {
      const words = text.trim();
      return on === "words" && words !== "" && !isEnough.test(words)
        ? [{ subject: id, message: `“${words}” is too little to read or to hit. Link more words.` }]
        : [];
    }),
};
