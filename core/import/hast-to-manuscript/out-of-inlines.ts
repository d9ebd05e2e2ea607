import type { Element, ElementContent, Root } from "hast";
import { blocks } from "./elements.ts";

/** Parts of lists and tables, which hold blocks and stand in them. */
const parts = new Set([
  "li",
  "tr",
  "td",
  "th",
  "thead",
  "tbody",
  "tfoot",
  "caption",
  "colgroup",
  "col",
  "body",
  "html",
]);

/**
 * Takes blocks out of what is for words, as a link around a heading and a paragraph: each block then has the link (or
 * the emphasis) on its own words. All parts of one link are known by one `dataLink`.
 */
export function outOfInlines(tree: Root): void {
  let made = 0;
  const divided = (element: Element): ElementContent[] => {
    const { tagName, properties } = element;
    const ofLink =
      tagName === "a" && properties["href"] !== undefined ? { dataLink: `around-${++made}` } : {};
    let isFirst = true;
    const wrapped = (children: ElementContent[]): ElementContent[] => {
      if (
        children.every(
          (child) => child.type !== "element" && (child.type !== "text" || child.value.trim() === ""),
        )
      )
        return [];
      const { id, name, ...rest } = properties;
      // A name is that of the first part alone.
      const named = isFirst
        ? { ...(id === undefined ? {} : { id }), ...(name === undefined ? {} : { name }) }
        : {};
      isFirst = false;
      return [{ ...element, properties: { ...rest, ...named, ...ofLink }, children }];
    };
    const spread = (children: ElementContent[]): ElementContent[] => {
      const out: ElementContent[] = [];
      let words: ElementContent[] = [];
      const flush = (): void => {
        out.push(...wrapped(words));
        words = [];
      };
      for (const child of children) {
        if (child.type !== "element" || !holdsBlock(child)) words.push(child);
        else {
          flush();
          out.push({ ...child, children: spread(child.children) });
        }
      }
      flush();
      return out;
    };
    // A place with no words of its own stands before what is in it.
    const place: ElementContent[] =
      tagName === "a" && properties["href"] === undefined ? [{ ...element, children: [] }] : [];
    return place.length > 0 ? [...place, ...element.children] : spread(element.children);
  };
  const visit = (parent: Root | Element): void => {
    const children = parent.children as ElementContent[];
    if (!children.some((child) => child.type === "element")) return;
    parent.children = children.flatMap((child): ElementContent[] => {
      if (child.type !== "element") return [child];
      visit(child);
      const isInline = !blocks.has(child.tagName) && !parts.has(child.tagName);
      return isInline && child.children.some(holdsBlock) ? divided(child) : [child];
    });
  };
  visit(tree);
}

function holdsBlock(node: ElementContent): boolean {
  if (node.type !== "element") return false;
  return blocks.has(node.tagName) || parts.has(node.tagName) || node.children.some(holdsBlock);
}
