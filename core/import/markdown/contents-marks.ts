import type { Element, Root } from "hast";
import { toString } from "hast-util-to-string";
import { allElements } from "../hast-nodes.ts";

/** What many write where a list of contents is to be made (common practice: Markdown itself has no such sign). */
const mark = String.raw`\[toc\]|\[\[_?toc_?\]\]|\$\{toc\}`;
/** And a list whose one item only stands for it. */
const markOfItem = String.raw`[^\n]*\n?[ \t]*\{:[ \t]*toc\b[^{}\n]*\}`;

const isMark = new RegExp(`^(?:${mark})$`, "i");
const isItem = new RegExp(`^${markOfItem}$`, "i");
/** Lines that are such a sign. */
export const linesOfContents = new RegExp(
  `^[ \\t]{0,3}(?:${mark})[ \\t]*$|^[ \\t]{0,3}[*+-][ \\t]+${markOfItem}[ \\t]*$`,
  "gim",
);

/** Takes out signs for a list of contents, which exports make by themselves. */
export function withoutContentsMarks(tree: Root): void {
  const stands = (one: Element): boolean =>
    (one.tagName === "p" && isMark.test(toString(one).trim())) ||
    (one.tagName === "ul" && isItem.test(toString(one).trim()));
  for (const parent of [tree, ...allElements(tree)])
    parent.children = (parent.children as Element[]).filter(
      (child) => child.type !== "element" || !stands(child),
    );
}
