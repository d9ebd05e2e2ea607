import type { Element, ElementContent, Root } from "hast";
import { percentDecoded } from "../destination/percent-decoded.ts";

/** An element of the tree, which stands in a paragraph of the file. */
export function element(
  tagName: string,
  properties: Element["properties"],
  children: ElementContent[],
  paragraph: number,
): Element {
  const point = { line: Math.max(1, paragraph), column: 1, offset: paragraph };
  return { type: "element", tagName, properties, children, position: { start: point, end: point } };
}

/** A break of the page, as trees of HTML have it. */
export function pageBreakAt(paragraph: number): Element {
  return element("div", { dataPart: "page-break" }, [], paragraph);
}

/** Whether something shows words or a picture. */
export function shows(content: readonly ElementContent[]): boolean {
  return content.some((node) =>
    node.type === "text"
      ? node.value.trim() !== ""
      : node.type === "element" && (["img", "note-reference"].includes(node.tagName) || shows(node.children)),
  );
}

/** Makes the sign of a note of an element. */
export function becomeSign(element: Element, note: string): void {
  Object.assign(element, { tagName: "note-reference", properties: { dataNote: note }, children: [] });
}

/**
 * The names under which links lead to an element: its id, and the old name of a link or anchor, which may be another. A link
 * is compared with them as it is written and as it is decoded (WHATWG HTML, 7.4.6.4), so each is known by both.
 */
export function namesOf({ tagName, properties }: Element): string[] {
  const own = [properties["id"], tagName === "a" ? properties["name"] : undefined];
  const names = own.filter((name): name is string => typeof name === "string" && name !== "");
  return [...new Set(names.flatMap((name) => [name, percentDecoded(name)]))];
}

/** Every element within another or a tree, in the order of the text. */
export function allElements(parent: Root | Element): Element[] {
  const found: Element[] = [];
  const visit = (node: Root | Element): void => {
    for (const child of node.children)
      if (child.type === "element") {
        found.push(child);
        visit(child);
      }
  };
  visit(parent);
  return found;
}
