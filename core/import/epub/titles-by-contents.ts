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
  const pages = new Map<string, WordsOfPage>();
  for (const { path } of contents) {
    const body = bodies.get(path);
    if (body && !pages.has(path) && shows(body.children)) pages.set(path, new WordsOfPage(body));
  }
  const levels = levelsByDepth(pages, contents);
  const seen = new Set<string>();
  for (const { path, fragment, label, depth } of contents) {
    const page = pages.get(path);
    if (!page) continue;
    const isFirst = !seen.has(path);
    seen.add(path);
    const start = page.startOf(fragment);
    const title = titleAmong(page.blocks, start, label);
    const level = `h${levels.get(depth) ?? depth}`;
    if (title !== null) becomeHeading(page.body, title, level);
    else if (isFirst && start === 0 && !page.hasHeading)
      page.body.children.unshift(element(level, {}, [{ type: "text", value: label }], lineOf(page.body)));
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

/** The words of a page in their blocks, before anything is changed. */
class WordsOfPage {
  readonly blocks: WordBlock[] = [];
  readonly hasHeading: boolean;
  /** Which block is the first from a place on, by its name. */
  private readonly starts = new Map<string, number>();

  constructor(readonly body: Element) {
    this.visit(body, true);
    this.hasHeading = allElements(body).some(({ tagName }) => isHeading(tagName));
  }

  /** The first block from the place on that a fragment names; behind all blocks where the page has no such place. */
  startOf(fragment: string | null): number {
    return fragment === null ? 0 : (this.starts.get(fragment) ?? this.blocks.length);
  }

  private visit(parent: Element, isFree: boolean): void {
    for (const child of parent.children) {
      if (child.type !== "element") continue;
      this.name(child);
      const isWords = wordBlocks.has(child.tagName) || isHeading(child.tagName);
      const within = isWords ? allElements(child) : [];
      if (!isWords || within.some(({ tagName }) => isBlock(tagName)))
        this.visit(child, isFree && /^(div|section|article|main|header|center)$/.test(child.tagName));
      else {
        for (const one of within) this.name(one);
        if (toString(child).trim() !== "") this.blocks.push({ block: child, parent, isFree });
      }
    }
  }

  private name({ tagName, properties }: Element): void {
    for (const name of [properties["id"], tagName === "a" ? properties["name"] : undefined])
      if (typeof name === "string" && !this.starts.has(name)) this.starts.set(name, this.blocks.length);
  }
}

const isBlock = (tagName: string): boolean =>
  wordBlocks.has(tagName) || otherBlocks.has(tagName) || isHeading(tagName);

/** As many blocks as a title is parted into, at most: “Chapter 1”, and what it is called. */
const mostParts = 3;

/** The blocks from one on that say a title together; none where a heading stands there already, null where the words are others. */
function titleAmong(blocks: readonly WordBlock[], start: number, label: string): WordBlock[] | null {
  const first = blocks.slice(start, start + mostParts);
  if (first[0] && isHeading(first[0].block.tagName)) return [];
  for (let count = 1; count <= first.length; count++) {
    const parts = first.slice(0, count);
    if (parts.some(({ block }) => isHeading(block.tagName))) return null;
    const words = parts.map(({ block }) => toString(block));
    if (saysTitle(words, label)) return parts;
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
  pages: ReadonlyMap<string, WordsOfPage>,
  contents: readonly ContentsEntry[],
): Map<number, number> {
  const found = new Map<number, number>();
  for (const { path, fragment, depth } of contents) {
    const page = pages.get(path);
    if (!page || found.has(depth)) continue;
    const heading =
      fragment === null
        ? headingsOf({ type: "root", children: page.body.children })[0]?.heading
        : page.blocks[page.startOf(fragment)]?.block;
    if (heading && isHeading(heading.tagName)) found.set(depth, Number(heading.tagName[1]));
  }
  return found;
}
