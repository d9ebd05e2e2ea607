import type { Element, ElementContent, Root } from "hast";
import { allElements } from "../hast-nodes.ts";
import { blocks } from "./elements.ts";
import { firstWith } from "./places-by-id.ts";

/** What shows nothing by itself: with nothing to show in it, it can only be there for the names of places. */
const unseen = new Set(["a", "p", "div", "span", "font", "b", "strong", "i", "em", "tt", "code", "br"]);

/** Lists and such, whose own terms are none of a list around them. */
const closed = new Set(["ul", "ol", "table", "blockquote", "figure", "p"]);

/**
 * Brings what stands loose between the items of lists into the item before it, or into one of its own, as it is seen there
 * (HTML, 4.4.5 to 4.4.9, allows none, and a parser takes it all the same). Places alone go to the item behind them; a list
 * of terms without a term or a meaning is none.
 */
export function looseIntoItems(parent: Root | Element): void {
  for (const child of parent.children) {
    if (child.type !== "element") continue;
    looseIntoItems(child);
    // A menu is a list of items (4.4.7), and so was a directory.
    if (child.tagName === "menu" || child.tagName === "dir") child.tagName = "ul";
    if (child.tagName === "ul" || child.tagName === "ol") child.children = itemsOf(child.children, "li");
    if (child.tagName !== "dl") continue;
    if (isOfTerms(child)) child.children = itemsOf(child.children, "dd");
    else child.tagName = "div";
  }
}

/** A term, a meaning, or what holds some: a list in the list, or a group. */
function isOfTerms(element: Element): boolean {
  if (element.tagName === "dt" || element.tagName === "dd") return true;
  if (closed.has(element.tagName)) return false;
  return element.children.some((child) => child.type === "element" && isOfTerms(child));
}

/** The children of a list, each an item. @param tagName what is made of loose ones */
function itemsOf(children: ElementContent[], tagName: "li" | "dd"): Element[] {
  const items: Element[] = [];
  let loose: ElementContent[] = [];
  let places: Element[] = [];
  const endLoose = (): void => {
    const position = loose[0]?.position;
    if (loose.length === 0) return;
    const before = items.at(-1);
    // An item more would have a number.
    const goesOn = tagName === "li" && before !== undefined;
    const made: Element = {
      type: "element",
      tagName: goesOn ? "div" : tagName,
      properties: {},
      children: loose,
      ...(position ? { position } : {}),
    };
    (goesOn ? before.children : items).push(made);
    loose = [];
  };
  for (const child of children) {
    if (child.type === "element" && (tagName === "li" ? child.tagName === "li" : isOfTerms(child))) {
      endLoose();
      (firstWith(child) ?? child).children.unshift(...places);
      places = [];
      if (tagName === "dd" && child.tagName !== "dt" && child.tagName !== "dd")
        child.children = itemsOf(child.children, tagName);
      items.push(child);
    } else if (loose.length > 0 && !isBlock(child)) loose.push(child);
    else if (isUnseen(child)) {
      if (child.type === "element")
        places.push(...[child, ...allElements(child)].filter(({ tagName: is }) => is === "a"));
    } else {
      // Paragraphs stay apart.
      endLoose();
      const within = child.type === "element" && isBlock(child) ? firstWith(child) : null;
      within?.children.unshift(...places);
      loose = within ? [child] : [...places, child];
      places = [];
    }
  }
  endLoose();
  const last = items.at(-1);
  if (last) last.children.push(...places);
  else loose = places;
  endLoose();
  return items;
}

function isBlock(node: ElementContent): boolean {
  return node.type === "element" && blocks.has(node.tagName);
}

function isUnseen(node: ElementContent): boolean {
  if (node.type === "text") return node.value.trim() === "";
  if (node.type !== "element") return true;
  return unseen.has(node.tagName) && node.properties["href"] === undefined && node.children.every(isUnseen);
}
