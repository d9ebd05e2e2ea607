import type { Element, Root } from "hast";
import { toString } from "hast-util-to-string";
import { allElements } from "./hast-nodes.ts";
import type { LeftOut } from "./left-out.ts";

/**
 * Takes over the numbers that a file gives its headings by itself, as readers note them in `dataNumbered`. Chapters among
 * numbered ones that carry none become unnumbered ones; further headings that carry none are told, since a book numbers all
 * of a level alike.
 * @returns up to which level headings are numbered: to the last of which most carry a number; 0 where chapters carry none
 */
export function takeNumbers(tree: Root): { upTo: number; unnumbered: LeftOut[] } {
  const headings = allElements(tree).filter(({ tagName }) => /^h[1-5]$/.test(tagName));
  const chapters = headings.filter(({ tagName }) => tagName === "h1");
  if (!chapters.some(isNumbered)) return { upTo: 0, unnumbered: [] };
  for (const chapter of chapters) if (!isNumbered(chapter)) chapter.properties["dataRole"] ??= "unnumbered";
  const counted = underNumbered(headings);
  let upTo = 1;
  for (const level of [2, 3, 4, 5]) {
    const own = counted.filter(({ tagName }) => tagName === `h${level}`);
    if (own.length === 0 || own.filter(isNumbered).length * 2 < own.length) break;
    upTo = level;
  }
  const unnumbered = counted
    .filter((one) => Number(one.tagName.slice(1)) <= upTo && !isNumbered(one))
    .map((one): LeftOut => ({
      where: one.position ? `paragraph ${one.position.start.line}` : null,
      sort: "Headings without a number among numbered ones",
      what: `The heading “${toString(one).replace(/\s+/g, " ").trim().slice(0, 100)}”`,
      why: "The book numbers all headings of a level. How many levels it numbers, or none, can be set for the book.",
    }));
  return { upTo, unnumbered };
}

function isNumbered({ properties }: Element): boolean {
  return properties["dataNumbered"] !== undefined;
}

/** Headings within the chapters that carry a number. */
function underNumbered(headings: readonly Element[]): Element[] {
  let isWithin = false;
  return headings.filter((one) => {
    if (one.tagName !== "h1") return isWithin;
    isWithin = isNumbered(one);
    return false;
  });
}
