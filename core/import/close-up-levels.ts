import type { Root } from "hast";
import { toString } from "hast-util-to-string";
import { allElements } from "./hast-nodes.ts";

/** The lowest headings of a book, as elements. */
const lowest = "h5";

/**
 * Closes gaps between the levels of a text's headings where some lie too deep for a book, as in texts that begin their parts on
 * the first level and their sections on the fourth: their order stays, and nothing becomes one with what it is under.
 */
export function closeUpLevels(tree: Root): void {
  const headings = allElements(tree).filter(
    (element) => /^h[1-6]$/.test(element.tagName) && toString(element).trim() !== "",
  );
  const levels = [...new Set(headings.map(({ tagName }) => tagName))].sort();
  if ((levels.at(-1) ?? "") <= lowest) return;
  // Whether the highest begin chapters is not asked here.
  const highest = Number(levels[0]!.slice(1));
  for (const heading of headings) heading.tagName = `h${highest + levels.indexOf(heading.tagName)}`;
}
