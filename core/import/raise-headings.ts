import type { Element, Root } from "hast";

/** What only wraps the blocks of a text, whose headings may begin chapters, and what a text has beside it. */
const between = new Set(
  "div section article main header hgroup center details summary form fieldset address search dialog".split(
    " ",
  ),
);
const beside = new Set(["nav", "aside", "footer"]);

/** The headings of a text, each with what it is in, without those of other blocks; those beside it where it has no others. */
export function headingsOf(tree: Root): { heading: Element; parent: Element | Root }[] {
  const found: { heading: Element; parent: Element | Root; isBeside: boolean }[] = [];
  const collect = (parent: Element | Root, isBeside: boolean): void => {
    for (const child of parent.children) {
      if (child.type !== "element") continue;
      if (/^h[1-6]$/.test(child.tagName)) found.push({ heading: child, parent, isBeside });
      else if (between.has(child.tagName)) collect(child, isBeside);
      else if (beside.has(child.tagName)) collect(child, true);
    }
  };
  collect(tree, false);
  const own = found.filter(({ isBeside }) => !isBeside);
  return own.length > 0 ? own : found;
}

/**
 * Makes the highest headings of a text document those that begin chapters. Its title, a `title-line`, is one only where
 * there are no headings.
 */
export function raiseHeadings(tree: Root): void {
  const level = ({ tagName }: Element): number | null =>
    /^h[1-6]$/.test(tagName) ? Number(tagName.slice(1)) : null;
  const all = headingsOf(tree).map(({ heading }) => level(heading)!);
  const by = all.length > 0 ? Math.min(...all) - 1 : 0;
  const visit = (node: Element | Root): void => {
    for (const child of node.children) {
      if (child.type !== "element") continue;
      const own = level(child);
      if (own !== null && by > 0) child.tagName = `h${Math.max(1, own - by)}`;
      if (child.tagName === "title-line") child.tagName = all.length > 0 ? "p" : "h1";
      visit(child);
    }
  };
  visit(tree);
}
