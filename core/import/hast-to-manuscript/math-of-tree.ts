import type { Element, ElementContent } from "hast";
import {
  assertMath,
  isMathName,
  isMathToken,
  mathAttributes,
  mathParts,
  type MathElement,
} from "../../manuscript/math.ts";
import { silent } from "./elements.ts";

/** A formula of a tree of HTML (MathML Core, presentation); null where it is too large or shows nothing. */
export function mathOfElement(element: Element): MathElement | null {
  const [first, ...more] = partsOf(element);
  if (first === undefined) return null;
  const children = more.length === 0 && first.name === "mrow" ? first.children : [first, ...more];
  const math: MathElement = { name: "math", children };
  try {
    assertMath(math);
    return math;
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return null;
  }
}

/** Whether a formula stands in a line of its own. */
export function isDisplay({ properties }: Element): boolean {
  return properties["display"] === "block" || properties["mode"] === "display";
}

function partsOf({ children }: Element): MathElement[] {
  return children.flatMap(partOf);
}

function partOf(node: ElementContent): MathElement[] {
  if (node.type === "text")
    return node.value.trim() === "" ? [] : [{ name: "mtext", children: [node.value.trim()] }];
  if (node.type !== "element" || silent.has(node.tagName)) return [];
  const name = node.tagName.replace(/^.*:/, "").toLowerCase();
  switch (name) {
    case "semantics": {
      const [shown] = node.children.filter((child) => child.type === "element");
      return shown ? partOf(shown) : [];
    }
    case "annotation":
    case "annotation-xml":
      return [];
    case "none":
      return [row([])];
    case "mfenced":
      return [fenced(node)];
  }
  if (isMathToken(name)) {
    const words = textOf(node).replace(/\s+/g, " ").trim();
    return words === "" && name !== "mo" ? [row([])] : [{ ...withAttributes(name, node), children: [words] }];
  }
  const parts = partsOf(node);
  if (!isMathName(name) || name === "math") return parts;
  const wanted = mathParts[name as keyof typeof mathParts];
  // What has other parts than it must have is shown as they are.
  return wanted !== null && parts.length !== wanted
    ? [row(parts)]
    : [{ ...withAttributes(name, node), children: parts }];
}

function row(children: MathElement[]): MathElement {
  return { name: "mrow", children };
}

/** Parts in brackets with signs between them, as MathML 3 had it. */
function fenced(node: Element): MathElement {
  const sign = (said: unknown, usual: string): MathElement => ({
    name: "mo",
    children: [typeof said === "string" ? said : usual],
  });
  const { open, close, separators } = node.properties;
  const signs = [...(typeof separators === "string" ? separators.replace(/\s/g, "") : ",")];
  const parts = partsOf(node).flatMap((part, i) =>
    i === 0 || signs.length === 0 ? [part] : [sign(signs[Math.min(i - 1, signs.length - 1)], ","), part],
  );
  return row([sign(open, "("), ...parts, sign(close, ")")]);
}

function withAttributes(name: MathElement["name"], { properties }: Element): Omit<MathElement, "children"> {
  const found = Object.entries(properties).flatMap(([key, value]): [string, string][] => {
    const said = String(value);
    const known = mathAttributes.find((one) => one === key.toLowerCase());
    return known && said !== "" && said.length <= 100 ? [[known, said]] : [];
  });
  return found.length > 0 ? { name, attributes: Object.fromEntries(found) } : { name };
}

function textOf({ children }: Element): string {
  return children
    .map((child) => (child.type === "text" ? child.value : child.type === "element" ? textOf(child) : ""))
    .join("");
}
