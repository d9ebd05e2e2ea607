import { writeDestination } from "../destination/destination.ts";
import type { Rule } from "./finding.ts";
import { foldedWords } from "./folded-words.ts";

/** Equal link text, case and blanks aside, that leads to different destinations. */
export const sameWords: Rule = {
  id: "same-words",
  title: "The same words lead to two places",
  severity: "consider",
  source: "WCAG 2.2 SC 2.4.4 and 3.2.4, ACT rules b20e66 and fd3a94 (from memory)",
  find: (links, { wordsLead }) => {
    const byWords = new Map<string, Set<string>>();
    const places = (text: string): Set<string> => {
      const words = foldedWords(text);
      let found = byWords.get(words);
      if (!found) byWords.set(words, (found = new Set(wordsLead.get(words))));
      return found;
    };
    const judged = links.filter(({ on, text }) => on !== "reference" && foldedWords(text) !== "");
    for (const { text, destination } of judged) places(text).add(writeDestination(destination));
    return judged.flatMap(({ id, text }) => {
      const count = places(text).size;
      return count > 1
        ? [
            {
              subject: id,
              message: `“${text.trim()}” leads to ${count === 2 ? "two" : count} places. Say what tells them apart.`,
            },
          ]
        : [];
    });
  },
};
