import { writeDestination } from "../destination/destination.ts";
import type { LinkUse } from "../manuscript/links.ts";
import type { CheckContext, ChapterRule, Found } from "./finding.ts";
import { purposeOf } from "./purpose.ts";
import { wordsOf } from "./folded-words.ts";

/** Equal link text, case and blanks aside, that leads to different destinations. */
export const sameWords: ChapterRule = {
  id: "same-words",
  title: "The same words lead to two places",
  severity: "consider",
  source: "WCAG 2.2 SC 2.4.4 and 3.2.4, ACT rules b20e66 and fd3a94 (from memory)",
  findInChapter: (_doc, links, { wordsLead, answers }) => {
    const named = links.flatMap((link) => (link.on === "reference" ? [] : { link, words: wordsOf(link) }));
    const more = notTold(named, wordsLead);
    const found: Found[] = [];
    for (const { link, words } of named) {
      const count = purposes(wordsLead.get(words) ?? none, more.get(words) ?? none, answers);
      if (count < 2) continue;
      const many = count === 2 ? "two" : count;
      found.push({
        subject: link.id,
        message: `“${link.text.trim()}” leads to ${many} places. Say what tells them apart.`,
      });
    }
    return found;
  },
};

const none: ReadonlySet<string> = new Set();

/** Where words of a chapter lead that has changed since it was told where those of the book do. */
function notTold(
  named: readonly { link: LinkUse; words: string }[],
  wordsLead: CheckContext["wordsLead"],
): ReadonlyMap<string, ReadonlySet<string>> {
  const more = new Map<string, Set<string>>();
  for (const { link, words } of named) {
    const to = writeDestination(link.destination);
    if (words === "" || wordsLead.get(words)?.has(to)) continue;
    const ends = more.get(words);
    if (ends) ends.add(to);
    else more.set(words, new Set([to]));
  }
  return more;
}

/** How many things readers meet where words lead, in the book and in a chapter that has changed since. */
function purposes(
  inBook: ReadonlySet<string>,
  more: ReadonlySet<string>,
  answers: CheckContext["answers"],
): number {
  if (inBook.size + more.size < 2) return 1;
  if (more.size === 0) return countedPurposes(inBook, answers);
  return new Set([...inBook, ...more].map((to) => purposeOf(to, answers))).size;
}

const counted = new WeakMap<CheckContext["answers"], WeakMap<ReadonlySet<string>, number>>();

/** Counted once for all chapters of a book, whose sets and answers stay as they are while it is checked. */
function countedPurposes(led: ReadonlySet<string>, answers: CheckContext["answers"]): number {
  let known = counted.get(answers);
  if (!known) counted.set(answers, (known = new WeakMap()));
  let count = known.get(led);
  if (count === undefined) {
    count = new Set([...led].map((to) => purposeOf(to, answers))).size;
    known.set(led, count);
  }
  return count;
}
