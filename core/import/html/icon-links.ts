import type { Root } from "hast";
import { toString } from "hast-util-to-string";
import { allElements } from "../hast-nodes.ts";

const iconsAlone = /^[\s\p{Co}]*\p{Co}[\s\p{Co}]*$/u;

/**
 * Leaves links within a page without words whose words are signs for private use alone, which pages draw as icons in a font
 * of their own: the way to itself that each heading of documentation has. In a book they would be a box in every heading.
 */
export function withoutIconWords(tree: Root): void {
  for (const element of allElements(tree)) {
    const { href } = element.properties;
    const isInside = element.tagName === "a" && typeof href === "string" && href.startsWith("#");
    if (isInside && iconsAlone.test(toString(element))) element.children = [];
  }
}
