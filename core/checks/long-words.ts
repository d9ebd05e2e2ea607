import type { LinkRule } from "./finding.ts";

const longest = 100;

/** A link of more than 100 characters. */
export const longWords: LinkRule = {
  id: "long-words",
  title: "The words are very long",
  severity: "consider",
  source: "WCAG 2.2 SC 2.4.4; common practice: a link names its destination and no more",
  find: ({ text, on }) =>
    on === "words" && text.length > longest
      ? `The link runs through ${text.length} characters. Link the few words that name where it leads.`
      : null,
};
