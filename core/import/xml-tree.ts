import { SaxesParser } from "saxes";
import { damaged } from "./errors.ts";

/** An element of a part, by its name without a prefix. */
export interface XmlElement {
  name: string;
  /** By their names without a prefix; those of relationships have `r:` before it, since an element may have both. */
  attributes: Record<string, string>;
  children: (XmlElement | string)[];
}

const relationships = /officeDocument\/(2006\/)?relationships$/;

/** What stands before names that would be others' else: an `r:id` is no `id`, an `epub:type` no `type`. */
function prefixOf(namespace: string): string {
  if (relationships.test(namespace)) return "r:";
  return namespace === "http://www.idpf.org/2007/ops" ? "epub:" : "";
}

/**
 * The tree of a part of a document. Entities of its own are not resolved, so that none can grow.
 * @throws ImportError `format` where it is not well-formed XML (XML 1.0)
 */
export function readXml(path: string, text: string): XmlElement {
  const root: XmlElement = { name: "", attributes: {}, children: [] };
  const open = [root];
  const parser = new SaxesParser({ xmlns: true, fileName: path });
  parser.on("error", ({ message }) => {
    throw damaged(`A part of the document, ${path}, cannot be read: ${message.replace(/\.+$/, "")}.`);
  });
  parser.on("opentag", ({ local, attributes }) => {
    const element: XmlElement = { name: local, attributes: {}, children: [] };
    for (const { local: name, value, uri } of Object.values(attributes))
      element.attributes[`${prefixOf(uri)}${name}`] = value;
    open.at(-1)!.children.push(element);
    open.push(element);
  });
  parser.on("text", (words) => open.at(-1)!.children.push(words));
  parser.on("cdata", (words) => open.at(-1)!.children.push(words));
  parser.on("closetag", () => void open.pop());
  parser.write(text).close();
  return elements(root)[0] ?? root;
}

/** The elements within an element, without the text between them. */
export function elements(element: XmlElement | undefined): XmlElement[] {
  return element ? element.children.filter((child): child is XmlElement => typeof child !== "string") : [];
}

/** All elements within an element, in the order in which they begin. */
export function everyElement(element: XmlElement): XmlElement[] {
  return elements(element).flatMap((child) => [child, ...everyElement(child)]);
}

/** The first element of a name within an element. */
export function childOf(element: XmlElement | undefined, name: string): XmlElement | undefined {
  return elements(element).find((child) => child.name === name);
}

/** The `val` of an element's child; undefined where it has none. */
export function valueOf(element: XmlElement | undefined, name: string): string | undefined {
  return childOf(element, name)?.attributes["val"];
}

/** Whether a property that is on or off is on (ECMA-376, 17.17.4). */
export function isOn(element: XmlElement | undefined, name: string): boolean | undefined {
  const property = childOf(element, name);
  if (!property) return undefined;
  return !/^(0|false|off|none)$/.test(property.attributes["val"] ?? "1");
}

/** All text within an element. */
export function textOf(element: XmlElement): string {
  return element.children.map((child) => (typeof child === "string" ? child : textOf(child))).join("");
}

/** The words of paragraphs within an element; blanks folded. */
export function shownText(element: XmlElement): string {
  return textOf(element).replace(/\s+/g, " ").trim();
}

/** The words within an element that are shown, and not those that programs note for themselves; blanks folded. */
export function shownWords(element: XmlElement | null): string {
  const all = (one: XmlElement): string =>
    one.name === "t" ? textOf(one) : elements(one).map(all).join("") + (one.name === "p" ? " " : "");
  return element ? all(element).replace(/\s+/g, " ").trim() : "";
}
