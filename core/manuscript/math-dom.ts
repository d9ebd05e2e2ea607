import type { DOMOutputSpec } from "prosemirror-model";
import type { MathElement } from "./math.ts";

const namespace = "http://www.w3.org/1998/Math/MathML";

/** A formula as the editor shows it: MathML, which browsers draw. */
export function mathToDom(math: MathElement, display: boolean): DOMOutputSpec {
  return specOf(math, display ? { display: "block" } : {});
}

function specOf({ name, attributes = {}, children }: MathElement, more = {}): DOMOutputSpec {
  // What follows the element of the formula is in its namespace, too.
  return [
    `${namespace} ${name}`,
    { ...attributes, ...more },
    ...children.map((child) => (typeof child === "string" ? child : specOf(child))),
  ];
}
