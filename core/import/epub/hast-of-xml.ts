import type { Element, ElementContent } from "hast";
import type { XmlElement } from "../xml-tree.ts";

/** How attributes are called in a tree of HTML where that is another name. */
const names: Record<string, string> = {
  colspan: "colSpan",
  rowspan: "rowSpan",
  class: "className",
  usemap: "useMap",
};

/** An author's own attributes as HTML calls them in a program (WHATWG HTML, 3.2.6.6). */
function nameOf(key: string): string {
  return key.startsWith("data-")
    ? key.replace(/-([a-z])/g, (_, letter: string) => letter.toUpperCase())
    : key;
}

/** XHTML that was read as XML as a tree of HTML. @param line by which what is left out is found again */
export function hastOfXml({ name, attributes, children }: XmlElement, line: number): Element {
  const properties: Element["properties"] = {};
  for (const [key, value] of Object.entries(attributes))
    properties[names[key] ?? nameOf(key)] = key === "class" ? value.split(/\s+/) : value;
  const point = { line, column: 1, offset: line };
  return {
    type: "element",
    tagName: name.toLowerCase(),
    properties,
    children: children.map((child): ElementContent =>
      typeof child === "string" ? { type: "text", value: child } : hastOfXml(child, line),
    ),
    position: { start: point, end: point },
  };
}
