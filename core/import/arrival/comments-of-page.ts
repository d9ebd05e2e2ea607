import type { DefaultTreeAdapterMap } from "parse5";
import { isNameOfComment, mayHoldComment } from "../html/comment-names.ts";

type Node = DefaultTreeAdapterMap["node"];

/** What of a page stands in comments: the outermost elements in which one begins before any words of the text. */
export function commentsOfPage(document: Node): ReadonlySet<Node> {
  const found = new Set<Node>();
  const visit = (node: Node): void => {
    if (!("childNodes" in node)) return;
    if ("tagName" in node && firstIn(node) === "comment") return void found.add(node);
    node.childNodes.forEach(visit);
  };
  visit(document);
  return found;
}

/** What is come upon first in a part of a page; null where there is nothing to see. */
function firstIn(node: Node): "comment" | "words" | null {
  if (node.nodeName === "#text")
    return /\S/.test((node as DefaultTreeAdapterMap["textNode"]).value) ? "words" : null;
  if (!("tagName" in node)) return null;
  if (node.attrs.some(({ name, value }) => (name === "id" || name === "name") && isNameOfComment(value)))
    return "comment";
  if (node.tagName === "img" || !mayHoldComment(node.tagName)) return "words";
  for (const child of node.childNodes) {
    const first = firstIn(child);
    if (first) return first;
  }
  return null;
}
