import type { Element, ElementContent } from "hast";
import { toString } from "hast-util-to-string";
import { allElements, element, shows } from "../hast-nodes.ts";
import { headingsOf } from "../raise-headings.ts";
import { saysTitle } from "./says-title.ts";
import type { ContentsEntry } from "./table-of-contents.ts";

/**
 * Makes headings of what the table of contents of an e-book names and no page marks as one, as many programs write titles
 * (common practice): where the words of an entry stand as blocks of their own where it leads, these are the heading; a page
 * that has no heading and does not say the words gets them.
 * @param bodies of the pages, by their paths
 */
export function titlesByContents(
  bodies: ReadonlyMap<string, Element>,
  contents: readonly ContentsEntry[],
): void {
  const levels = levelsByDepth(bodies, contents);
  const seen = new Set<string>();
  for (const entry of contents) {
    const body = bodies.get(entry.path);
    if (!body || !shows(body.children)) continue;
    const isFirst = !seen.has(entry.path);
    seen.add(entry.path);
    const blocks = blocksFrom(body, entry.fragment);
    const title = titleAmong(blocks, entry.label);
    const isTop = isFirst && blocks.length === blocksFrom(body, null).length;
    const level = `h${levels.get(entry.depth) ?? entry.depth}`;
    if (title !== null) becomeHeading(body, title, level);
    else if (isTop && !allElements(body).some(({ tagName }) => isHeading(tagName)))
      body.children.unshift(element(level, {}, [{ type: "text", value: entry.label }], lineOf(body)));
  }
}

const isHeading = (tagName: string): boolean => /^h[1-6]$/.test(tagName);
const lineOf = ({ position }: Element): number => position?.start.line ?? 1;

/** Blocks of words that may be titles: those in which no other block is. */
const wordBlocks = new Set([
  "p",
  "div",
  "center",
  "td",
  "th",
  "li",
  "dt",
  "dd",
  "figcaption",
  "caption",
  "pre",
]);
const otherBlocks = new Set([
  "table",
  "ul",
  "ol",
  "dl",
  "blockquote",
  "section",
  "article",
  "figure",
  "header",
  "tr",
]);

interface WordBlock {
  block: Element;
  parent: Element;
  /** Whether it stands in nothing but what wraps blocks, so that it can be a heading where it is. */
  isFree: boolean;
}

/** The words of a page in their blocks, from the place on that a fragment names. */
function blocksFrom(body: Element, fragment: string | null): WordBlock[] {
  const found: (WordBlock & { isAfter: boolean })[] = [];
  let isAfter = fragment === null;
  const visit = (parent: Element, isFree: boolean): void => {
    for (const child of parent.children) {
      if (child.type !== "element") continue;
      if (names(child, fragment)) isAfter = true;
      const isWords = wordBlocks.has(child.tagName) || isHeading(child.tagName);
      if (isWords && !allElements(child).some(({ tagName }) => isBlock(tagName))) {
        if (allElements(child).some((one) => names(one, fragment))) isAfter = true;
        if (toString(child).trim() !== "") found.push({ block: child, parent, isFree, isAfter });
      } else visit(child, isFree && /^(div|section|article|main|header|center)$/.test(child.tagName));
    }
  };
  visit(body, true);
  return found.filter((one) => one.isAfter);
}

const isBlock = (tagName: string): boolean =>
  wordBlocks.has(tagName) || otherBlocks.has(tagName) || isHeading(tagName);

function names({ tagName, properties }: Element, fragment: string | null): boolean {
  return fragment !== null && [properties["id"], tagName === "a" && properties["name"]].includes(fragment);
}

/** As many blocks as a title is parted into, at most: “Chapter 1”, and what it is called. */
const mostParts = 3;

/** The blocks that say a title together; none where a heading stands there already, null where the words are others. */
function titleAmong(blocks: readonly WordBlock[], label: string): WordBlock[] | null {
  if (blocks[0] && isHeading(blocks[0].block.tagName)) return [];
  for (let count = 1; count <= Math.min(mostParts, blocks.length); count++) {
    const parts = blocks.slice(0, count);
    if (parts.some(({ block }) => isHeading(block.tagName))) return null;
    if (
      saysTitle(
        parts.map(({ block }) => toString(block)),
        label,
      )
    )
      return parts;
  }
  return null;
}

function becomeHeading(body: Element, [first, ...others]: readonly WordBlock[], tagName: string): void {
  if (!first) return;
  const line = lineOf(first.block);
  for (const { block, parent } of others) {
    parent.children.splice(parent.children.indexOf(block), 1);
    const { id } = block.properties;
    const part = element("span", typeof id === "string" ? { id } : {}, block.children, line);
    first.block.children.push(element("br", {}, [], line), part);
  }
  if (first.isFree) first.block.tagName = tagName;
  else {
    const { block, parent } = first;
    const children = parent.children as ElementContent[];
    children.splice(children.indexOf(block), 1);
    body.children.unshift({ ...block, tagName });
  }
}

/** The levels of headings to which entries lead, by how deep these lie: what is made a heading is one among them. */
function levelsByDepth(
  bodies: ReadonlyMap<string, Element>,
  contents: readonly ContentsEntry[],
): Map<number, number> {
  const found = new Map<number, number>();
  for (const { path, fragment, depth } of contents) {
    const body = bodies.get(path);
    if (!body || found.has(depth)) continue;
    const heading =
      fragment === null
        ? headingsOf({ type: "root", children: body.children })[0]?.heading
        : blocksFrom(body, fragment)[0]?.block;
    if (heading && isHeading(heading.tagName)) found.set(depth, Number(heading.tagName[1]));
  }
  return found;
}
