import type { Root } from "hast";
import { toString } from "hast-util-to-string";
import { allElements } from "./hast-nodes.ts";
import type { LeftOut } from "./left-out.ts";

/** The levels of headings that a book can number. */
const levels = [1, 2, 3, 4, 5];

/**
 * Up to which level a file numbers its headings by itself, as readers note it in `dataNumbered`: to the last of which most
 * headings carry a number, without a gap. Headings among them that carry none are told, since the book numbers all alike.
 * @returns 0 where chapters carry no number
 */
export function numberedHeadings(tree: Root): { upTo: number; unnumbered: LeftOut[] } {
  const headings = allElements(tree).filter(({ tagName }) => /^h[1-5]$/.test(tagName));
  const isNumbered = ({ properties }: (typeof headings)[number]): boolean =>
    properties["dataNumbered"] !== undefined;
  let upTo = 0;
  for (const level of levels) {
    const own = headings.filter(({ tagName }) => tagName === `h${level}`);
    if (own.filter(isNumbered).length * 2 <= own.length) break;
    upTo = level;
  }
  const unnumbered = headings
    .filter((one) => Number(one.tagName.slice(1)) <= upTo && !isNumbered(one))
    .map((one): LeftOut => ({
      where: one.position ? `paragraph ${one.position.start.line}` : null,
      sort: "Headings without a number among numbered ones",
      what: `The heading “${toString(one).replace(/\s+/g, " ").trim().slice(0, 100)}”`,
      why: "The book numbers all headings of a level. How many levels it numbers, or none, can be set for the book.",
    }));
  return { upTo, unnumbered };
}
