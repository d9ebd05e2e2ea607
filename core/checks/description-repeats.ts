import type { BookRule } from "./finding.ts";
import { foldedWords, wordsOf } from "./folded-words.ts";

/** A description that says again what the link text says. */
export const descriptionRepeats: BookRule = {
  id: "description-repeats",
  title: "A description repeats the words",
  severity: "consider",
  source: "WCAG technique H33 (from memory): what stands in the words is not said again",
  findInBook: (link, { describesAll = false }) =>
    !describesAll && link.description !== null && foldedWords(link.description) === wordsOf(link)
      ? "The description only repeats the words. Take it out, or say more."
      : null,
  mend: () => ({ description: null }),
};
