import type { Root } from "hast";
import { allElements } from "../hast-nodes.ts";

const value = /"[^"\n]*"|'[^'\n]*'|[^\s"'{}]+/.source;
const attribute = String.raw`[.#][\w-]+|[\w-]+=(?:${value})`;

/** Attributes in braces, which many write right behind a link or a picture (common practice: Markdown itself has none). */
export const attributeList = new RegExp(
  String.raw`^\{:?[ \t]*(?:${attribute})(?:[ \t]+(?:${attribute}))*[ \t]*\}`,
);

/** Takes lists of attributes behind links and pictures out of the words. What one says of a window is the link's. */
export function withoutAttributeLists(tree: Root): void {
  for (const parent of [tree, ...allElements(tree)])
    parent.children.forEach((child, i) => {
      const before = parent.children[i - 1];
      if (child.type !== "text" || before?.type !== "element" || !/^(a|img)$/.test(before.tagName)) return;
      const [list] = attributeList.exec(child.value) ?? [];
      if (list === undefined) return;
      child.value = child.value.slice(list.length);
      if (before.tagName === "a" && /\btarget=["']?_blank\b/.test(list))
        before.properties["target"] = "_blank";
    });
}
