import type { Element, Root } from "hast";
import { toString } from "hast-util-to-string";

const iconsAlone = /^[\s\p{Co}]*\p{Co}[\s\p{Co}]*$/u;

/**
 * Leaves without words the links by which things lead to themselves, where these are signs for private use alone, which pages
 * draw as icons in a font of their own: each heading of much documentation has one. In a book they would be a box in it.
 */
export function withoutIconWords(tree: Root): void {
  const visit = (parent: Element | Root, around: ReadonlySet<unknown>): void => {
    for (const child of parent.children) {
      if (child.type !== "element") continue;
      const { href, id } = child.properties;
      const isToItself = typeof href === "string" && href.startsWith("#") && around.has(href.slice(1));
      if (child.tagName === "a" && isToItself && iconsAlone.test(toString(child))) child.children = [];
      else visit(child, id === undefined ? around : new Set([...around, id]));
    }
  };
  visit(tree, new Set());
}
