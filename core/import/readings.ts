import type { Element, ElementContent } from "hast";
import { toString } from "hast-util-to-string";

/** The brackets around how letters are read, beside letters that are as wide as they are high, and beside others. */
export const brackets = (base: string): [string, string] =>
  /[\p{sc=Han}\p{sc=Hira}\p{sc=Kana}\p{sc=Hang}\p{sc=Bopo}]/u.test(base) ? ["（", "）"] : ["(", ")"];

/** What is in a `ruby`, with how its letters are read in brackets behind them, as it is where nothing stands above lines. */
export function withReadings(ruby: Element): ElementContent[] {
  const isNamed = (name: string) => (one: ElementContent) => one.type === "element" && one.tagName === name;
  // A page that gives brackets has its own.
  if (ruby.children.some(isNamed("rp"))) return ruby.children;
  const [open, close] = brackets(toString(ruby));
  return ruby.children.map((child) =>
    child.type === "element" && child.tagName === "rt" && toString(child).trim() !== ""
      ? {
          ...child,
          children: [{ type: "text", value: open }, ...child.children, { type: "text", value: close }],
        }
      : child,
  );
}
