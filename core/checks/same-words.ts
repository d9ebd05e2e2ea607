import { writeDestination } from "../destination/destination.ts";
import type { LinkRule } from "./finding.ts";
import { purposeOf } from "./purpose.ts";
import { foldedWords } from "./folded-words.ts";

/** Equal link text, case and blanks aside, that leads to different destinations. */
export const sameWords: LinkRule = {
  id: "same-words",
  title: "The same words lead to two places",
  severity: "consider",
  source: "WCAG 2.2 SC 2.4.4 and 3.2.4, ACT rules b20e66 and fd3a94 (from memory)",
  find: (links, { wordsLead, answers }) => {
    const byWords = new Map<string, Set<string>>();
    const places = (words: string): Set<string> => {
      let found = byWords.get(words);
      if (!found) byWords.set(words, (found = new Set(wordsLead.get(words))));
      return found;
    };
    const judged = links.flatMap(({ id, on, text, destination }) => {
      const words = on === "reference" ? "" : foldedWords(text);
      return words === "" ? [] : [{ id, text, led: places(words).add(writeDestination(destination)) }];
    });
    const purposes = new Map<Set<string>, number>();
    return judged.flatMap(({ id, text, led }) => {
      if (led.size < 2) return [];
      let count = purposes.get(led);
      if (count === undefined) {
        count = new Set([...led].map((to) => purposeOf(to, answers))).size;
        purposes.set(led, count);
      }
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
