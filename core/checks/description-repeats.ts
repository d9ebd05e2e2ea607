import type { LinkRule } from "./finding.ts";
import { foldedWords } from "./folded-words.ts";

/** A description that says again what the link text says. */
export const descriptionRepeats: LinkRule = {
  id: "description-repeats",
  title: "A description repeats the words",
  severity: "consider",
  source: "WCAG technique H33 (from memory): what stands in the words is not said again",
  find: (links, { describesAll = false }) =>
    links.flatMap(({ id, text, description }) =>
      !describesAll && description !== null && foldedWords(description) === foldedWords(text)
        ? [{ subject: id, message: "The description only repeats the words. Take it out, or say more." }]
        : [],
    ),
  mend: () => ({ description: null }),
};
