import type { Element, ElementContent, Root, RootContent } from "hast";
import { writableText, writableValue } from "../manuscript/writable-text.ts";

/** Leaves out of the words and properties of a tree what no file can hold as a sign of a text. */
export function makeWritable(parent: Root | Element): void {
  for (const child of parent.children as (RootContent | ElementContent)[]) {
    if (child.type === "text") child.value = writableText(child.value);
    if (child.type !== "element") continue;
    child.properties = writableValue(child.properties);
    makeWritable(child);
  }
}
