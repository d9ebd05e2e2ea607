import type { Element, ElementContent } from "hast";
import { toString } from "hast-util-to-string";
import { percentDecoded } from "../../destination/percent-decoded.ts";
import { bookWords } from "../../manuscript/book-words.ts";
import { ImportError } from "../errors.ts";
import { allElements, shows } from "../hast-nodes.ts";
import { pathFrom } from "../joined-pages.ts";
import type { LeftOut } from "../left-out.ts";
import { semanticsOf } from "../semantics.ts";
import { childOf, everyElement, textOf, type XmlElement } from "../xml-tree.ts";
import type { EpubPackage } from "./package-of-epub.ts";
import { isPageNumber } from "./page-number.ts";
import { readXhtml } from "./read-xhtml.ts";

/** Where in a page of an e-book one of its print edition begins: the page's path, with an id behind `#`. */
type Spot = string;

/**
 * The pages of a print edition that an e-book tells, in its list of them (EPUB 3.3, 5.4.2.4; in version 2 the `pageList` of
 * its NCX) and where they begin in the text (`pagebreak`, `doc-pagebreak`): each becomes an anchor that is called as they are.
 */
export class PagesOfPrint {
  private readonly listed: ReadonlyMap<Spot, string>;
  private readonly word: string;
  private count = 0;

  constructor(publication: EpubPackage) {
    this.listed = listedPages(publication);
    this.word = bookWords(publication.about.language ?? "en").page;
  }

  /** Makes anchors of the beginnings of pages in one page of the e-book. */
  intoAnchors(body: Element, path: string): void {
    const places = allElements(body).flatMap((place) => {
      const label = this.labelOf(place, path);
      return label === null ? [] : [{ place, label }];
    });
    for (const { place, label } of places) {
      const name = /^(\d+[a-z]?|[ivxlc]+)$/i.test(label) ? `${this.word} ${label}` : label;
      const anchor: Element = {
        type: "element",
        tagName: "a",
        properties: { id: idOf(place) ?? `page-of-print-${label}`, dataAnchor: name },
        children: [],
        ...(place.position ? { position: place.position } : {}),
      };
      this.count += 1;
      if (isEmptyBreak(place)) Object.assign(place, anchor);
      else if (place.tagName === "img") {
        const picture = { ...place, properties: { ...place.properties, id: undefined } };
        Object.assign(place, { tagName: "span", properties: {}, children: [anchor, picture] });
      } else {
        place.children.unshift(anchor);
        delete place.properties["id"];
      }
    }
    intoBlocks(body);
  }

  /** What is to be told of it; nothing for an e-book without such pages. */
  told(): LeftOut[] {
    if (this.count === 0) return [];
    return [
      {
        where: null,
        sort: "Pages of the print edition",
        what: `Where ${this.count} pages of the print edition begin`,
        why: `Each is an anchor, found by its name, as “${this.word} 12”. An export lists the pages of its own PDF.`,
      },
    ];
  }

  /** How the page is called that begins with an element; null where none does. A heading is a place by itself. */
  private labelOf(one: Element, path: string): string | null {
    if (/^h[1-6]$/.test(one.tagName) || one.properties["dataAnchor"] !== undefined) return null;
    const id = idOf(one);
    const listed = id === null ? undefined : this.listed.get(`${path}#${id}`);
    if (listed !== undefined) return listed;
    if (!semanticsOf(one).some((said) => said === "pagebreak" || said === "doc-pagebreak")) return null;
    const { title, ariaLabel, "aria-label": label } = one.properties;
    const said = [title, ariaLabel, label, toString(one)].find(
      (words): words is string => typeof words === "string" && words.trim() !== "",
    );
    return said === undefined || said.trim().length > longestLabel ? null : said.trim();
  }
}

const longestLabel = 40;

function idOf({ tagName, properties: { id, name } }: Element): string | null {
  if (typeof id === "string" && id !== "") return id;
  return tagName === "a" && typeof name === "string" && name !== "" ? name : null;
}

/** Whether an element only marks the beginning of a page: it shows nothing but the page's number. */
function isEmptyBreak(one: Element): boolean {
  if (one.properties["href"] !== undefined) return false;
  const words = toString(one).trim();
  return words === "" ? !shows([one]) : isPageNumber(words);
}

const blocks =
  /^(p|h[1-6]|li|dt|dd|td|th|blockquote|figcaption|div|section|article|ul|ol|dl|table|figure|tbody|tr)$/;

/** Puts anchors between blocks to the beginning of the block behind them, else to the end of the one before. */
function intoBlocks(parent: Element): void {
  const isBlock = (child: ElementContent): child is Element =>
    child.type === "element" && blocks.test(child.tagName);
  const children: ElementContent[] = [];
  let waiting: Element[] = [];
  const isAmongBlocks = parent.children.some(isBlock);
  for (const child of parent.children) {
    const isAnchor =
      child.type === "element" && child.tagName === "a" && child.properties["dataAnchor"] !== undefined;
    if (isAmongBlocks && isAnchor) {
      waiting.push(child);
      continue;
    }
    if (isBlock(child) && waiting.length > 0) {
      wordsFirst(child).children.unshift(...waiting);
      waiting = [];
    }
    children.push(child);
  }
  const last = children.findLast(isBlock);
  if (waiting.length > 0 && last) wordsLast(last).children.push(...waiting);
  parent.children = children;
  for (const child of children) if (isBlock(child)) intoBlocks(child);
}

function wordsFirst(block: Element): Element {
  const first = block.children.find((child): child is Element => child.type === "element");
  return first && blocks.test(first.tagName) ? wordsFirst(first) : block;
}

function wordsLast(block: Element): Element {
  const last = block.children.findLast((child): child is Element => child.type === "element");
  return last && blocks.test(last.tagName) ? wordsLast(last) : block;
}

/** The pages that the e-book lists, by where they begin. */
function listedPages({ files, navigation, ncx }: EpubPackage): Map<Spot, string> {
  const found = new Map<Spot, string>();
  const note = (from: string, href: string | undefined, label: string): void => {
    const [, fragment] = /#(.+)$/s.exec(href ?? "") ?? [];
    const words = label.replace(/\s+/g, " ").trim();
    if (fragment === undefined || words === "" || words.length > longestLabel) return;
    const spot = `${pathFrom(from, href!)}#${percentDecoded(fragment)}`;
    if (!found.has(spot)) found.set(spot, words);
  };
  const tree = (path: string | null): XmlElement[] => {
    const bytes = path === null ? undefined : files[path];
    if (!bytes) return [];
    try {
      return everyElement(readXhtml(path!, bytes));
    } catch (error) {
      if (!(error instanceof ImportError)) throw error;
      // A list that cannot be read names no pages; their beginnings in the text still do.
      return [];
    }
  };
  for (const list of tree(navigation))
    if (
      list.name === "nav" &&
      /\b(page-list|doc-pagelist)\b/.test(`${list.attributes["epub:type"]} ${list.attributes["role"]}`)
    )
      for (const one of everyElement(list))
        if (one.name === "a") note(navigation!, one.attributes["href"], textOf(one));
  for (const one of tree(ncx)) {
    const label = one.name === "pageTarget" ? childOf(one, "navLabel") : undefined;
    if (label) note(ncx!, childOf(one, "content")?.attributes["src"], textOf(label));
  }
  return found;
}
