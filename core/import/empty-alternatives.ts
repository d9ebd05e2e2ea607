import type { Element, Root } from "hast";

/**
 * Notes that pictures of a page are decorative whose text alternative is there and empty (WHATWG HTML, 4.8.4.4.6): who made
 * the page said so. One within a link is what the link is called by, and stays to be told.
 */
export function decorativeByEmptyAlternative(parent: Root | Element): void {
  for (const child of parent.children) {
    if (child.type !== "element") continue;
    const { tagName, properties } = child;
    if (tagName === "img" && properties["alt"] === "") properties["role"] ??= "presentation";
    const isLink = tagName === "a" && properties["href"] !== undefined;
    if (!isLink) decorativeByEmptyAlternative(child);
  }
}
