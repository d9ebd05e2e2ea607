import type { Element, ElementContent, Root } from "hast";
import { blocks } from "../hast-to-manuscript/elements.ts";

/** What holds paragraphs, so that words in it may be several. */
const holds = new Set(
  "body div section article main header footer center details aside form fieldset dialog blockquote li dd".split(
    " ",
  ),
);
/** Parts of tables and of the page itself, which are no words. */
const parts = new Set("html body table thead tbody tfoot tr td th caption colgroup".split(" "));

/**
 * Breaks of lines as a page shows them: one that ends a block shows nothing (CSS Text 3, 4.1.1), nor does one more in a
 * block without words, by which programs keep blocks apart; two and more between words part paragraphs.
 */
export function breaksAsShown(parent: Root | Element): void {
  const isOfParagraphs = parent.type === "root" || holds.has(parent.tagName);
  const children: ElementContent[] = [];
  let words: ElementContent[] = [];
  const flush = (): void => {
    const paragraphs = isOfParagraphs ? parted(words) : [words];
    if (paragraphs.length === 1) children.push(...shorn(paragraphs[0]!));
    else children.push(...paragraphs.map((content) => paragraphOf(shorn(content), {})));
    words = [];
  };
  for (const child of parent.children as ElementContent[]) {
    if (child.type !== "element" || !isBlock(child)) {
      words.push(child);
      continue;
    }
    flush();
    if (child.tagName === "pre") children.push(child);
    else if (child.tagName === "p" && isOfParagraphs) children.push(...paragraphsOf(child));
    else {
      breaksAsShown(child);
      children.push(child);
    }
  }
  flush();
  parent.children = children;
}

function isBlock(node: ElementContent): boolean {
  if (node.type !== "element") return false;
  return blocks.has(node.tagName) || parts.has(node.tagName) || node.children.some(isBlock);
}

/** A paragraph, or as many as it is shown as; its name stays with the first. */
function paragraphsOf(paragraph: Element): Element[] {
  const { id, ...others } = paragraph.properties;
  return parted(paragraph.children).map((content, i) =>
    i === 0
      ? { ...paragraph, children: shorn(content) }
      : paragraphOf(shorn(content), id === undefined ? paragraph.properties : others),
  );
}

function paragraphOf(children: ElementContent[], properties: Element["properties"]): Element {
  const position = children.find((child) => child.position)?.position;
  return { type: "element", tagName: "p", properties, children, ...(position ? { position } : {}) };
}

/** Words, parted where two breaks and more stand between some. */
function parted(words: readonly ElementContent[]): ElementContent[][] {
  const all: ElementContent[][] = [[]];
  let breaks = 0;
  for (const node of words) {
    if (isBreak(node)) breaks++;
    else if (!isBlank(node)) {
      if (breaks > 1 && all.at(-1)!.some((one) => !isBreak(one) && !isBlank(one))) all.push([]);
      breaks = 0;
    }
    all.at(-1)!.push(node);
  }
  return all;
}

/** Words without the breaks at their ends, also within what is at their ends. */
function shorn(words: ElementContent[]): ElementContent[] {
  const isNothing = (node: ElementContent): boolean => isBreak(node) || isBlank(node);
  const first = words.findIndex((node) => !isNothing(node));
  const last = words.findLastIndex((node) => !isNothing(node));
  if (first === -1) return words.filter((node) => !isBreak(node));
  const end = words[last]!;
  if (end.type === "element" && end.children.some((node) => !isNothing(node)))
    end.children = withoutLast(end.children);
  return words.filter((node, i) => !isBreak(node) || (first < i && i < last));
}

function withoutLast(children: ElementContent[]): ElementContent[] {
  const last = children.findLastIndex((node) => !isBreak(node) && !isBlank(node));
  const end = children[last];
  if (end?.type === "element" && end.children.length > 0) end.children = withoutLast(end.children);
  return children.filter((node, i) => i <= last || !isBreak(node));
}

const isBreak = (node: ElementContent): boolean => node.type === "element" && node.tagName === "br";

const isBlank = (node: ElementContent): boolean =>
  node.type === "text" ? /^[ \t\r\n\f]*$/.test(node.value) : node.type !== "element";
