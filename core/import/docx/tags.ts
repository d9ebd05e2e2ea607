import { childOf, valueOf, type XmlElement } from "../xml-tree.ts";

/** The tag of a content control (ECMA-376-1, 17.5.2.42). */
export function tagOf(control: XmlElement): string {
  return valueOf(childOf(control, "sdtPr"), "tag") ?? "";
}
