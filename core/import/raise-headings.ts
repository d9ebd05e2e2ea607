import type { Element, Nodes, Root } from "hast";

/**
 * Makes the highest headings of a text document those that begin chapters. Its title, a `title-line`, is one only where
 * there are no headings.
 */
export function raiseHeadings(tree: Root): void {
  const level = (node: Nodes): number | null =>
    node.type === "element" && /^h[1-6]$/.test(node.tagName) ? Number(node.tagName.slice(1)) : null;
  const all: number[] = [];
  const collect = (node: Element | Root): void => {
    for (const child of node.children) {
      if (child.type !== "element") continue;
      const own = level(child);
      if (own !== null) all.push(own);
      if (/^(section|div)$/.test(child.tagName)) collect(child);
    }
  };
  collect(tree);
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
