import type { Element, ElementContent, Root } from "hast";
import { percentDecoded } from "../../destination/percent-decoded.ts";
import { allElements, namesOf } from "../hast-nodes.ts";

/** What is a place by itself, or brings its name along. */
const known = new Set(["a", "h1", "h2", "h3", "h4", "h5", "h6", "figcaption", "caption", "note-body"]);
/** What holds no words itself: its first part that does is meant. */
const holders = new Set(["ul", "ol", "dl", "table", "thead", "tbody", "tfoot", "tr"]);
const empty = new Set(["img", "hr", "br", "input", "source", "wbr", "col", "area"]);

/**
 * Puts an anchor where an element stands whose id a link of the file leads to: any element of HTML can be a place, and
 * a manuscript knows headings, captions, notes and anchors (HTML, 7.4.6.4, find a potential indicated element).
 */
export function anchorsByIds(tree: Root): void {
  const wanted = targets(tree);
  const ids = new Set(allElements(tree).map(({ properties }) => properties["id"]));
  // What has a name as its id is meant before what is only called so.
  for (const { tagName, properties } of allElements(tree))
    if (tagName === "a" && properties["name"] !== properties["id"] && ids.has(properties["name"]))
      delete properties["name"];
  // Programs give links ids of their own: only what something leads to is a place.
  for (const one of allElements(tree))
    if (one.tagName === "a" && one.properties["href"] !== undefined && !isWanted(one, wanted))
      delete one.properties["id"];
  if (wanted.size > 0) visit(tree, wanted);
}

/** The fragments to which links of a tree lead, as they are written and as they are decoded. */
function targets(tree: Root): Set<string> {
  const found = new Set<string>();
  for (const { properties } of allElements(tree)) {
    const lists = [properties["dataSection"], properties["dataAnchors"]].map(String);
    for (const href of [properties["href"], ...lists.flatMap((one) => one.split(" "))]) {
      if (typeof href !== "string" || !href.startsWith("#") || href.length === 1) continue;
      found.add(href.slice(1));
      found.add(percentDecoded(href.slice(1)));
    }
  }
  return found;
}

function isWanted(element: Element, wanted: ReadonlySet<string>): boolean {
  return namesOf(element).some((name) => wanted.has(name));
}

function visit(parent: Element | Root, wanted: Set<string>): void {
  const children: ElementContent[] = [];
  for (const child of parent.children as ElementContent[]) {
    if (child.type === "element") {
      visit(child, wanted);
      const id = child.properties["id"];
      if (typeof id === "string" && isWanted(child, wanted) && !known.has(child.tagName)) {
        const anchor: Element = {
          type: "element",
          tagName: "a",
          properties: { id },
          children: [],
          ...(child.position ? { position: child.position } : {}),
        };
        const inside = firstWith(child);
        if (inside) inside.children.unshift(anchor);
        else children.push(anchor);
      }
    }
    children.push(child);
  }
  parent.children = children;
}

/** The element in which an anchor at the beginning of another can stand; null where it stands before it. */
export function firstWith(element: Element): Element | null {
  if (empty.has(element.tagName) || element.tagName === "pre") return null;
  const first = element.children.find((child): child is Element => child.type === "element");
  const isHolder = holders.has(element.tagName);
  if (isHolder) return first ? firstWith(first) : null;
  // Before a first block an anchor would be a paragraph of its own.
  const opens = element.children.find((child) => child.type !== "text" || child.value.trim() !== "");
  if (
    opens?.type === "element" &&
    (holders.has(opens.tagName) || /^(p|div|section|li|dt|dd|blockquote)$/.test(opens.tagName))
  )
    return firstWith(opens) ?? element;
  // A heading is a place itself; what leads to its section leads to it.
  if (opens?.type === "element" && /^h[1-6]$/.test(opens.tagName)) return opens;
  return element;
}
