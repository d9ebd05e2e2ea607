import type { Rule } from "./finding.ts";

/** A link on punctuation or one letter alone. */
export const thinWords: Rule = {
  id: "thin-words",
  title: "The words are a sign or a single letter",
  severity: "fix",
  source: "WCAG 2.2 SC 2.4.4 and 2.5.8: such a link is hard to understand and to hit",
  find: (links) =>
    links.flatMap(({ id, text, on }) => {
      const words = text.trim();
      const letters = words.match(/[\p{L}\p{N}]/gu)?.length ?? 0;
      return on === "words" && words !== "" && letters < 2 && !/^\p{N}$/u.test(words)
        ? [{ subject: id, message: `“${words}” is too little to read or to hit. Link more words.` }]
        : [];
    }),
};
