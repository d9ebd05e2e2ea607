import type { DefaultTreeAdapterMap } from "parse5";
import { isNameOfComment, mayHoldComment } from "../html/comment-names.ts";
import { openingWords } from "./opening-heading.ts";

type Node = DefaultTreeAdapterMap["node"];

/** The comments of a page: the outermost elements in which one begins before any words of the text, and its names. */
export function commentsOfPage(document: Node): { elements: ReadonlySet<Node>; names: ReadonlySet<string> } {
  const elements = new Set<Node>();
  const names = new Set<string>();
  const nameAll = (node: Node): void => {
    if ("attrs" in node)
      for (const { name, value } of node.attrs)
        if ((name === "id" || name === "name") && isNameOfComment(value)) names.add(value);
    if ("childNodes" in node) node.childNodes.forEach(nameAll);
  };
  const visit = (node: Node): void => {
    if (!("childNodes" in node)) return;
    // A name that shows nothing is a place of the text.
    if ("tagName" in node && firstIn(node) === "comment" && openingWords(node) !== "") {
      elements.add(node);
      return nameAll(node);
    }
    node.childNodes.forEach(visit);
  };
  visit(document);
  return { elements, names };
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
