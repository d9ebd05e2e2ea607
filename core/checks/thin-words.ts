import type { LinkRule } from "./finding.ts";

/** A link on punctuation or one letter alone. */
export const thinWords: LinkRule = {
  id: "thin-words",
  title: "The words are a sign or a single letter",
  severity: "fix",
  source: "WCAG 2.2 SC 2.4.4 and 2.5.8: such a link is hard to understand and to hit",
  find: (links) =>
    links.flatMap(({ id, text, on }) => {
      const words = text.trim();
      const isEnough = /[\p{L}\p{N}].*?[\p{L}\p{N}]|^\p{N}$/su.test(words);
      return on === "words" && words !== "" && !isEnough
        ? [{ subject: id, message: `“${words}” is too little to read or to hit. Link more words.` }]
        : [];
    }),
};
