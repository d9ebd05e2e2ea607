import type { Element, ElementContent, Root } from "hast";
import { toString } from "hast-util-to-string";
import { allElements, namesOf, shows } from "../hast-nodes.ts";
import type { LeftOut } from "../left-out.ts";
import { isNameOfComment, mayHoldComment } from "./comment-names.ts";

/** Takes what editors say of a text out of it, with the signs that lead there, and tells each. */
export function withoutComments(tree: Root): LeftOut[] {
  const taken: Element[] = [];
  if (allElements(tree).some(isComment))
    takeOut(tree, (element) => {
      const isOne = beginsWithComment(element) && shows([element]);
      if (isOne) taken.push(element);
      return isOne;
    });
  if (taken.length === 0) return [];
  const names = new Set(taken.flatMap((one) => [one, ...allElements(one)].flatMap(namesOf)));
  takeOut(tree, ({ properties: { href } }) => {
    if (typeof href !== "string" || !href.startsWith("#")) return false;
    return isNameOfComment(href.slice(1)) && names.has(href.slice(1));
  });
  return taken.map(told);
}

function takeOut(parent: Root | Element, isMeant: (element: Element) => boolean): void {
  parent.children = (parent.children as ElementContent[]).filter((child) => {
    if (child.type !== "element") return true;
    if (isMeant(child)) return false;
    takeOut(child, isMeant);
    return true;
  });
}

function told(comment: Element): LeftOut {
  const words = toString(comment).replace(/\s+/g, " ").trim().slice(0, 200);
  return {
    where: comment.position ? `line ${comment.position.start.line}` : null,
    sort: "Comments",
    what: `A comment: “${words}”`,
    why: "Comments have no place in a book.",
  };
}

const isComment = (element: Element): boolean => namesOf(element).some(isNameOfComment);

/** Whether an element is for a comment alone: it is one, or nothing is shown in it before one. */
function beginsWithComment(element: Element): boolean {
  if (isComment(element)) return true;
  if (!mayHoldComment(element.tagName)) return false;
  const at = element.children.findIndex((child) => child.type === "element" && beginsWithComment(child));
  return at !== -1 && !shows(element.children.slice(0, at));
}
