import { wordsOfMath, type MathElement } from "../../manuscript/math.ts";
import { escapeXml } from "./escape-xml.ts";

const namespace = "http://www.w3.org/1998/Math/MathML";

/**
 * A formula as MathML (MathML Core), with its words for readers that do not draw it (`alttext`).
 * @param escape what its text may not hold, where that is more
 */
export function mathXhtml(math: MathElement, display: boolean, escape = escapeXml): string {
  const about = ` xmlns="${namespace}"${display ? ' display="block"' : ""} alttext="${escape(wordsOfMath(math))}"`;
  return `<math${about}${attributesOf(math)}>${inside(math, escape)}</math>`;
}

function inside({ children }: MathElement, escape: (words: string) => string): string {
  return children
    .map((child) =>
      typeof child === "string"
        ? escape(child)
        : `<${child.name}${attributesOf(child)}>${inside(child, escape)}</${child.name}>`,
    )
    .join("");
}

function attributesOf({ attributes = {} }: MathElement): string {
  return Object.entries(attributes)
    .map(([name, value]) => ` ${name}="${escapeXml(value)}"`)
    .join("");
}
