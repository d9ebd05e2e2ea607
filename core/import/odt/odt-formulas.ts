import type { Element } from "hast";
import { ImportError } from "../errors.ts";
import { element } from "../hast-nodes.ts";
import { decodePage } from "../text-encoding.ts";
import { elements, readXml, textOf, type XmlElement } from "../xml-tree.ts";
import { isMathToken } from "../../manuscript/math.ts";

/** The formula that an object of a document is (OpenDocument 1.3, part 3, 14.5): within it or in a file of its own; null for any other. */
export function formulaOf(
  object: XmlElement,
  files: Readonly<Record<string, Uint8Array>>,
  paragraph: number,
): Element | null {
  const path = (object.attributes["href"] ?? "").replace(/^\.\//, "").replace(/\/$/, "");
  const bytes = files[`${path}/content.xml`];
  const inside = elements(object).find(({ name }) => name === "math");
  const math = inside ?? (bytes ? rootOf(bytes) : null);
  return math?.name === "math" ? asHtml(math, paragraph) : null;
}

function rootOf(bytes: Uint8Array): XmlElement | null {
  try {
    return readXml("formula", decodePage(bytes));
  } catch (error) {
    // One that is damaged is shown by the picture that goes with it, as programs without formulas do.
    if (!(error instanceof ImportError)) throw error;
    return null;
  }
}

function asHtml(math: XmlElement, paragraph: number): Element {
  const children = isMathToken(math.name)
    ? [{ type: "text" as const, value: textOf(math) }]
    : elements(math).map((child) => asHtml(child, paragraph));
  return element(math.name, { ...math.attributes }, children, paragraph);
}
