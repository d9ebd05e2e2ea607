import type { Element, ElementContent } from "hast";

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

/** Whether something shows words or a picture. */
export function shows(content: readonly ElementContent[]): boolean {
  return content.some((node) =>
    node.type === "text"
      ? node.value.trim() !== ""
      : node.type === "element" && (["img", "note-reference"].includes(node.tagName) || shows(node.children)),
  );
}
