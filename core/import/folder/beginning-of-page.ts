import type { Element, ElementContent, Root } from "hast";
import { toString } from "hast-util-to-string";
import { allElements, element, shows } from "../hast-nodes.ts";
import { silent } from "../hast-to-manuscript/elements.ts";
import { headingsOf, raiseHeadings } from "../raise-headings.ts";

/** More letters than a site's name and its ways to other pages have are a text, which the heading after it does not begin. */
const mostLetters = 300;

/**
 * Every page of a folder begins a chapter: with its own heading, behind which goes what stands before it, as ways to other
 * pages do; or under a name, where it has no heading, or a text before it.
 */
export function beginsChapter(tree: Root, name: string): void {
  raiseHeadings(tree);
  if (!shows(tree.children as ElementContent[])) return;
  const headings = headingsOf(tree);
  const own = new Set(headings.map(({ heading }) => heading));
  // What stands beside the text or in a table begins no chapter.
  for (const one of allElements(tree)) if (one.tagName === "h1" && !own.has(one)) one.tagName = "h2";
  const first = headings.find(({ heading }) => heading.tagName === "h1");
  const before = first ? placesBefore(tree, first.heading) : [];
  const nodes = before.map(({ node }) => node);
  if (!first || lettersOf(nodes) > mostLetters)
    return void tree.children.unshift(element("h1", {}, [{ type: "text", value: name }], 1));
  // What shows nothing right before the heading are places of its own.
  const moved = before.slice(0, nodes.findLastIndex((node) => shows([node])) + 1);
  for (const { node, parent } of moved) parent.children.splice(parent.children.indexOf(node), 1);
  const { heading, parent } = first;
  parent.children.splice(parent.children.indexOf(heading) + 1, 0, ...moved.map(({ node }) => node));
}

/**
 * A heading of the highest level that opens most pages alike is the site's name, and begins none of them that has another
 * heading: it becomes a paragraph.
 */
export function withoutSiteName(pages: readonly Root[]): void {
  const times = new Map<string, number>();
  const opening = pages.flatMap((tree) => {
    const headings = headingsOf(tree);
    const first = headings.find(({ heading }) => heading.tagName === "h1");
    if (!first) return [];
    const words = wordsOf(first.heading);
    times.set(words, (times.get(words) ?? 0) + 1);
    return [{ heading: first.heading, words, isAlone: headings.length === 1 }];
  });
  for (const { heading, words, isAlone } of opening)
    if (!isAlone && times.get(words)! > Math.max(2, pages.length / 2)) heading.tagName = "p";
}

const wordsOf = (heading: Element): string => toString(heading).replace(/\s+/g, " ").trim();

/** What pages are called that no heading begins: as each calls itself, where no other does so, else by its file's name. */
export function namesOfPages(titles: ReadonlyMap<string, string | null>): (path: string) => string {
  const all = [...titles.values()];
  return (path) => {
    const title = titles.get(path) ?? null;
    if (title !== null && all.indexOf(title) === all.lastIndexOf(title)) return title;
    return path
      .split("/")
      .at(-1)!
      .replace(/\.[^.]+$/, "");
  };
}

interface Placed {
  node: ElementContent;
  parent: Element | Root;
}

/** What stands before an element; of what that is in, only what is before it there. */
function placesBefore(tree: Root, end: Element): Placed[] {
  const found: Placed[] = [];
  const visit = (parent: Element | Root): void => {
    for (const node of parent.children as ElementContent[]) {
      if (node === end) return;
      if (node.type === "element" && allElements(node).includes(end)) return visit(node);
      found.push({ node, parent });
    }
  };
  visit(tree);
  return found;
}

/** How many letters a page has of its own in some nodes: those of links are of ways to other pages. */
function lettersOf(nodes: readonly ElementContent[]): number {
  return nodes.reduce((sum, node) => {
    if (node.type === "text") return sum + node.value.replace(/\s+/g, "").length;
    if (node.type !== "element" || silent.has(node.tagName)) return sum;
    const isLink = node.tagName === "a" && node.properties["href"] !== undefined;
    return isLink ? sum : sum + lettersOf(node.children);
  }, 0);
}
