import type { Element, ElementContent, Root } from "hast";
import { toString } from "hast-util-to-string";
import { element } from "../hast-nodes.ts";
import { isListed, isSignOfItem, isSpaceBehindSign, levelOfItem } from "./list-signs.ts";

/**
 * Makes lists of paragraphs that are some: text programs save the items of a list as paragraphs, the sign of each as words
 * before it, set apart by blanks that cannot be broken; and the lines of their list of contents as paragraphs of their own.
 */
export function listedParagraphs(parent: Root | Element): void {
  const made: ElementContent[] = [];
  /** The lists that are open, from the outermost, each with how far in it stands. */
  let open: { list: Element; level: number }[] = [];
  let contents: Element | null = null;
  let next = 1;
  for (const child of parent.children as ElementContent[]) {
    if (child.type === "element" && child.tagName !== "p") listedParagraphs(child);
    const isBetween = child.type !== "element" && (child.type !== "text" || child.value.trim() === "");
    if (isBetween) {
      if (open.length === 0 && !contents) made.push(child);
      continue;
    }
    const item = child.type === "element" ? itemOf(child) : null;
    if (item) {
      contents = null;
      const tagName = item.number === null ? "ul" : "ol";
      while (open.length > 0 && open.at(-1)!.level > item.level) open.pop();
      const last = open.at(-1);
      const goesOn =
        last?.level === item.level &&
        last.list.tagName === tagName &&
        (item.number === null || item.number === next || item.number > 1);
      if (!goesOn) {
        if (last?.level === item.level) open.pop();
        const start = item.number !== null && item.number > 1 ? { start: String(item.number) } : {};
        const list = element(tagName, start, [], lineOf(item.paragraph));
        const around = open.at(-1)?.list.children.at(-1);
        (around?.type === "element" ? around.children : made).push(list);
        open.push({ list, level: item.level });
      }
      next = (item.number ?? 0) + 1;
      open
        .at(-1)!
        .list.children.push({ ...item.paragraph, tagName: "li", properties: {}, children: [item.paragraph] });
      continue;
    }
    open = [];
    if (child.type === "element" && isLineOfContents(child)) {
      if (!contents) made.push((contents = element("nav", { dataContents: "contents" }, [], lineOf(child))));
      contents.children.push(child);
      continue;
    }
    contents = null;
    made.push(child);
  }
  parent.children = made;
}

const lineOf = ({ position }: Element): number => position?.start.line ?? 1;

interface Item {
  /** Without its sign. */
  paragraph: Element;
  level: number;
  /** Null for a sign that does not count. */
  number: number | null;
}

function itemOf(paragraph: Element): Item | null {
  const { className, style } = paragraph.properties;
  const classes = [className].flat().join(" ");
  if (paragraph.tagName !== "p" || !isListed(classes, String(style ?? ""))) return null;
  let sign = "";
  for (const [i, child] of paragraph.children.entries()) {
    const words = child.type === "text" ? child.value : child.type === "element" ? toString(child) : "";
    sign += words;
    if (!endsInSpace(child)) {
      if (sign.trim().length > 8) return null;
      continue;
    }
    if (!isSignOfItem(sign)) return null;
    const number = /\d+/.exec(sign)?.[0];
    const counts = /[\p{L}\d][.)]\s*$/u.test(sign);
    return {
      paragraph: { ...paragraph, children: paragraph.children.slice(i + 1) },
      level: levelOfItem(String(style ?? "")),
      number: counts ? Number(number ?? 1) : null,
    };
  }
  return null;
}

/** Whether something is, or ends with, the blanks behind a sign. */
function endsInSpace(node: ElementContent): boolean {
  if (node.type === "text") return isSpaceBehindSign(node.value);
  if (node.type !== "element") return false;
  const last = node.children.at(-1);
  return isSpaceBehindSign(toString(node)) || (last !== undefined && endsInSpace(last));
}

/** A line of a list of contents as text programs save it, by its class: a level, and where it leads. */
function isLineOfContents({ tagName, properties }: Element): boolean {
  return tagName === "p" && /(^|\s)\w*toc\d(\s|$)/i.test([properties["className"]].flat().join(" "));
}
