import type { EpubLink, EpubPage, LinkGround } from "@vennet/core/finished/epub/epub-page";
import type { XhtmlSource } from "@vennet/core/finished/epub/xhtml-source";
import { firstAt } from "@vennet/core/manuscript/first-at";
import { hrefOf } from "../../read/open-flow";

/** What an author has picked on a page of an e-book: what a link is to lie on. */
export interface PickedText {
  on: LinkGround;
  words: string;
}

/** By what a shown element says which link it is. */
export const linkAttribute = "data-link-id";

/** What one can point at, as at a paragraph. */
const blocks =
  "p, li, h1, h2, h3, h4, h5, h6, dt, dd, td, th, caption, figcaption, figure, img, blockquote, pre, table, aside, section, div";

/**
 * Says of a page that is shown which of its letters and elements are which of its source. It is made before anything is
 * marked on the page, and knows the parts into which marking splits its text.
 */
export class PageMap {
  /** Whether what is shown is what the source says, so that what is picked there can be found in it. */
  readonly isTrue: boolean;
  private readonly texts: { node: Text; from: number }[] = [];
  private readonly elements: readonly Element[];
  private readonly links: readonly Element[];

  constructor(
    private readonly body: HTMLElement,
    private readonly source: XhtmlSource,
  ) {
    const inside = body.ownerDocument;
    this.elements = [...body.querySelectorAll("*")];
    this.links = [...body.querySelectorAll("a, area")].filter((one) => hrefOf(one) !== null);
    const walker = inside.createTreeWalker(body, NodeFilter.SHOW_TEXT | NodeFilter.SHOW_CDATA_SECTION);
    let from = 0;
    let text = "";
    while (walker.nextNode()) {
      const node = walker.currentNode as Text;
      this.texts.push({ node, from });
      from += node.length;
      text += node.data;
    }
    this.isTrue = text === source.text && this.elements.length === source.elements.length;
  }

  /** Shows the links of a page as they are to be. */
  mark({ links, untouched }: EpubPage): void {
    const kept = new Set([...links, ...untouched].map(({ from }) => from));
    for (const [i, element] of this.links.entries()) if (!kept.has(i)) unlink(element);
    for (const link of links) {
      if (link.from === null) this.wrap(link);
      else this.markOwn(this.links[link.from], link);
    }
  }

  /** What is selected on the page, without the blanks around it; null where that is nothing. */
  picked(range: Range): PickedText | null {
    const within = this.texts.filter(({ node }) => node.isConnected && range.intersectsNode(node));
    const [first, last] = [within[0], within.at(-1)];
    if (!first || !last) return null;
    const begin = first.from + (first.node === range.startContainer ? range.startOffset : 0);
    const end = last.from + (last.node === range.endContainer ? range.endOffset : last.node.length);
    const all = this.source.text.slice(begin, end);
    return this.words(begin + all.length - all.trimStart().length, begin + all.trimEnd().length);
  }

  /** Some letters of the page as what a link is to lie on; null where there are none. */
  words(from: number, to: number): PickedText | null {
    if (from >= to) return null;
    const words = this.source.text.slice(from, to).replace(/\s+/g, " ");
    const element = this.source.elements.findLast((one) => one.from <= from && from < one.to)?.index ?? 0;
    return { on: { kind: "words", from, to, element }, words };
  }

  /** Where some letters of the page are shown; null where they are not. */
  range(from: number, to: number): Range | null {
    const at = (letter: number): { node: Text; offset: number } | null => {
      const text = this.texts[this.firstReaching(letter)];
      return text?.node.isConnected ? { node: text.node, offset: letter - text.from } : null;
    };
    const [begin, end] = [at(from), at(to)];
    if (!begin || !end) return null;
    const range = this.body.ownerDocument.createRange();
    range.setStart(begin.node, begin.offset);
    range.setEnd(end.node, end.offset);
    return range;
  }

  /** The first text that has letters and reaches to a letter; behind the last where none does. */
  private firstReaching(letter: number): number {
    let first = firstAt(this.texts, ({ node, from }) => from + node.length >= letter);
    while (this.texts[first]?.node.length === 0) first += 1;
    return first;
  }

  /** A picture as what a link is to lie on. */
  picture(element: Element): PickedText | null {
    const index = this.elements.indexOf(element);
    const { from } = this.source.elements[index] ?? {};
    if (from === undefined) return null;
    return {
      on: { kind: "picture", from, to: from, element: index },
      words: element.getAttribute("alt") ?? "",
    };
  }

  /** Which element of the source is the paragraph, or what else one points at, around an element; null where none is. */
  pointedAt(target: Element): { element: number; words: string } | null {
    for (let at: Element | null = target; at && at !== this.body; at = at.parentElement) {
      const element = at.matches(blocks) ? this.elements.indexOf(at) : -1;
      if (element !== -1) return { element, words: this.source.shownWordsOf(this.source.elements[element]!) };
    }
    return null;
  }

  /** The element of the page that is the how many-th of its source. */
  element(index: number): Element | null {
    return this.elements[index] ?? null;
  }

  private markOwn(element: Element | undefined, link: EpubLink): void {
    if (!element) return;
    element.setAttribute(linkAttribute, link.id);
    const { from, to } = link.on;
    const was = this.source.text.slice(from, to).replace(/\s+/g, " ").trim();
    if (link.on.kind === "words" && link.hasOwnWords && was !== link.words) element.textContent = link.words;
  }

  private wrap({ id, on }: EpubLink): void {
    const around = (nodes: readonly ChildNode[]): void => {
      const mark = this.body.ownerDocument.createElement("a");
      mark.setAttribute(linkAttribute, id);
      mark.href = "#";
      nodes[0]!.before(mark);
      mark.append(...nodes);
    };
    if (on.kind === "picture") {
      const picture = this.elements[on.element];
      if (picture?.isConnected) around([picture]);
      return;
    }
    this.cut(on.from);
    this.cut(on.to);
    for (let i = this.firstReaching(on.from); i < this.texts.length; i++) {
      const { node, from } = this.texts[i]!;
      if (from + node.length > on.to) break;
      if (from >= on.from && node.isConnected && node.data.trim() !== "") around([node]);
    }
  }

  /** Sees to it that a text begins at a letter. */
  private cut(at: number): void {
    const i = this.firstReaching(at);
    const text = this.texts[i];
    const isInside = text !== undefined && text.from < at && at < text.from + text.node.length;
    if (!isInside || !text.node.isConnected) return;
    const rest = text.node.splitText(at - text.from);
    this.texts.splice(i + 1, 0, { node: rest, from: at });
  }
}

/** Shows a link as what it is no more. */
function unlink(element: Element): void {
  if (element.localName === "area") element.remove();
  else element.replaceWith(...element.childNodes);
}
