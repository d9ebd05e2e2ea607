import { writeDestination } from "../destination/destination.ts";
import type { CheckContext, LinkRule } from "./finding.ts";
import { purposeOf } from "./purpose.ts";
import { foldedWords } from "./folded-words.ts";

/** Equal link text, case and blanks aside, that leads to different destinations. */
export const sameWords: LinkRule = {
  id: "same-words",
  title: "The same words lead to two places",
  severity: "consider",
  source: "WCAG 2.2 SC 2.4.4 and 3.2.4, ACT rules b20e66 and fd3a94 (from memory)",
  find: (links, { wordsLead, answers }) => {
    const byWords = new Map<string, Led>();
    const places = (words: string): Led => {
      let found = byWords.get(words);
      if (!found) byWords.set(words, (found = new Led(wordsLead.get(words))));
      return found;
    };
    const judged = links.flatMap(({ id, on, text, destination }) => {
      const words = on === "reference" ? "" : foldedWords(text);
      return words === "" ? [] : [{ id, text, led: places(words).with(writeDestination(destination)) }];
    });
    return judged.flatMap(({ id, text, led }) => {
      const count = led.purposes(answers);
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

/** Where words lead in the book, and in a chapter that has changed since that was told. */
class Led {
  readonly #inBook: ReadonlySet<string>;
  readonly #more = new Set<string>();
  #count: number | null = null;

  constructor(inBook: ReadonlySet<string> = new Set()) {
    this.#inBook = inBook;
  }

  with(to: string): this {
    if (!this.#inBook.has(to)) this.#more.add(to);
    return this;
  }

  /** How many things readers meet there. */
  purposes(answers: CheckContext["answers"]): number {
    if (this.#inBook.size + this.#more.size < 2) return 1;
    if (this.#more.size === 0) return countedPurposes(this.#inBook, answers);
    this.#count ??= new Set([...this.#inBook, ...this.#more].map((to) => purposeOf(to, answers))).size;
    return this.#count;
  }
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
