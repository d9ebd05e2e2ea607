import type { Element, ElementContent, Root } from "hast";
import { toString } from "hast-util-to-string";
import { percentDecoded } from "../destination/percent-decoded.ts";
import { allElements } from "./hast-nodes.ts";
import type { LeftOut } from "./left-out.ts";

/** What lists of contents list, as their element says; any other `nav` may be one. */
const kinds = new Set(["contents", "figures", "tables"]);

/**
 * Makes lists that follow the headings of lists of contents: those of whose links every one leads to a heading, or to a
 * caption in a list of figures or tables.
 * @returns the lists that say that they are some and stay what they were
 */
export function listsOfContents(tree: Root): Element[] {
  const all = allElements(tree);
  const byId = new Map<string, Element>();
  for (const one of all) {
    const { id, name } = one.properties;
    for (const own of [id, one.tagName === "a" ? name : undefined])
      if (typeof own === "string" && !byId.has(own)) byId.set(own, one);
  }
  const parents = new Map<Element, Element>();
  for (const parent of all)
    for (const child of parent.children) if (child.type === "element") parents.set(child, parent);
  const placeOf = (href: string): Element | undefined => {
    const target = byId.get(href.slice(1)) ?? byId.get(percentDecoded(href.slice(1)));
    return target && (openedBy(target) ?? around(target, parents));
  };
  const left: Element[] = [];
  for (const list of all) {
    const kind = String(list.properties["dataContents"] ?? (list.tagName === "nav" ? "contents" : ""));
    if (!kinds.has(kind) || list.properties["dataSignposts"] !== undefined) continue;
    const places = linksOf(list).map((href) => (href.startsWith("#") ? placeOf(href) : undefined));
    const listed = listingOf(kind, list, places, all);
    const [heading, ...others] = wordsBesides(list);
    const isHeading = heading === undefined || heading.isFirst;
    if (listed === null || !isHeading || others.length > 0) {
      if (list.properties["dataContents"] !== undefined) left.push(list);
      continue;
    }
    Object.assign(list.properties, {
      ...(heading ? { dataHeading: heading.words } : {}),
      dataSignposts: kind,
      ...listed,
    });
  }
  return left;
}

/** The least share of what a list would list that the list of the file has: headings are written after it was made. */
const leastListed = 0.75;

/** From where a list draws its entries, and how deep; null for one that would list something else. */
function listingOf(
  kind: string,
  list: Element,
  places: readonly (Element | undefined)[],
  all: readonly Element[],
): Element["properties"] | null {
  const wanted = new Set(places);
  if (wanted.size < 2 || wanted.has(undefined)) return null;
  const isAsListed = (would: readonly Element[]): boolean => {
    const found = new Set(would);
    return [...wanted].every((one) => found.has(one!)) && wanted.size >= found.size * leastListed;
  };
  if (kind !== "contents") {
    const of = kind === "figures" ? "figure" : "table";
    const captions = all.filter(({ properties }) => properties["dataCaption"] === of);
    return isAsListed(captions) ? { dataScope: "book", dataDepth: "1" } : null;
  }
  const levels = [...wanted].map((place) => levelOf(place!));
  if (levels.includes(null)) return null;
  const deepest = Math.max(...levels.map((level) => level!));
  const headings = (from: number, to: number): Element[] =>
    all.slice(from, to).filter((one) => {
      const level = levelOf(one);
      return level !== null && level <= deepest && toString(one).trim() !== "";
    });
  const at = all.indexOf(list);
  const begins = all.findLastIndex(({ tagName }, i) => i < at && tagName === "h1");
  const ends = all.findIndex(({ tagName }, i) => i > at && tagName === "h1");
  const inChapter = headings(begins + 1, ends === -1 ? all.length : ends);
  if (deepest > 1 && isAsListed(inChapter)) return { dataScope: "chapter", dataDepth: String(deepest - 1) };
  return isAsListed(headings(0, all.length)) ? { dataScope: "book", dataDepth: String(deepest) } : null;
}

/** What an author is told of a list of contents that stays what it was. */
export function toldList(where: string | null): LeftOut {
  return {
    where,
    sort: "Lists of contents",
    what: "The document’s own list of contents",
    why: "It stands as it was, since not all of its entries lead to a heading. Exports make one by themselves, and a signpost list follows the headings.",
  };
}

function levelOf({ tagName }: Element): number | null {
  const level = /^h([1-5])$/.exec(tagName)?.[1];
  return level === undefined ? null : Number(level);
}

function isPlace(element: Element): boolean {
  return levelOf(element) !== null || element.properties["dataCaption"] !== undefined;
}

/** The heading or caption that an element is, or with which it begins. */
function openedBy(element: Element): Element | undefined {
  if (isPlace(element)) return element;
  const first = element.children.find((child) => child.type !== "text" || child.value.trim() !== "");
  return first?.type === "element" && first.tagName !== "a" ? openedBy(first) : undefined;
}

/** The heading or caption in which an element stands. */
function around(element: Element, parents: ReadonlyMap<Element, Element>): Element | undefined {
  for (let at = parents.get(element); at; at = parents.get(at)) if (isPlace(at)) return at;
  return undefined;
}

/** The words of a list that are in none of its links, part by part; numbers and dots are none. */
function wordsBesides(list: Element): { words: string; isFirst: boolean }[] {
  const found: { words: string; isFirst: boolean; in: Element }[] = [];
  let isFirst = true;
  const visit = (parent: Element): void => {
    for (const child of parent.children) {
      if (child.type === "element" && child.tagName === "a" && child.properties["href"] !== undefined)
        isFirst = false;
      else if (child.type === "element") visit(child);
      else if (child.type === "text" && /\p{L}/u.test(child.value)) {
        const last = found.at(-1);
        if (last?.in === parent) last.words += child.value;
        else found.push({ words: child.value.trim(), isFirst, in: parent });
      }
    }
  };
  visit(list);
  return found;
}

function linksOf(list: Element): string[] {
  return list.children.flatMap((child: ElementContent): string[] => {
    if (child.type !== "element") return [];
    const { href } = child.properties;
    return child.tagName === "a" && typeof href === "string" ? [href] : linksOf(child);
  });
}
