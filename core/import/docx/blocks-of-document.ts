import type { Element, ElementContent } from "hast";
import { allElements, element, pageBreakAt, shows } from "../hast-nodes.ts";
import { keptBy, withKept } from "../kept-of-export.ts";
import { tagOf } from "./tags.ts";
import { lineSides } from "../looks-by-name.ts";
import { ListsOfDocument } from "./lists-of-document.ts";
import type { Numbering } from "./numbering.ts";
import { partedByPages } from "./page-breaks.ts";
import { listOf, outlineOf } from "./styles.ts";
import { tableOf } from "./table-of-document.ts";
import type { DocumentReading, WordsOfDocument } from "./words-of-document.ts";
import { childOf, elements, isOn, valueOf, type XmlElement } from "../xml-tree.ts";

/** What only wraps what is in it. */
const wrappers = new Set(["sdtContent", "ins", "moveTo", "customXml", "smartTag"]);

/** Whether a paragraph is the first letters of the next one (ECMA-376, 17.3.1.11). */
function isDropCap(paragraph: XmlElement): boolean {
  const kind = childOf(childOf(paragraph, "pPr"), "framePr")?.attributes["dropCap"];
  return kind === "drop" || kind === "margin";
}

/** Reads the blocks of one part: paragraphs, headings, lists, quotations, listings and tables. */
export class BlocksOfDocument {
  private readonly lists: ListsOfDocument;

  constructor(
    private readonly reading: DocumentReading,
    private readonly words: WordsOfDocument,
    private readonly numbering: Numbering,
  ) {
    this.lists = new ListsOfDocument(numbering);
  }

  blocks(parent: XmlElement): ElementContent[] {
    const out: ElementContent[] = [];
    /** What begins the next paragraph: bookmarks between two, and a first letter that is set over several lines. */
    let between: ElementContent[] = [];
    for (const child of this.flat(parent)) {
      if (child.name === "p") {
        const content = [...between, ...this.words.read(this.next(child))];
        const boxes = this.words.boxes;
        between = [];
        if (isDropCap(child)) {
          between = content;
          continue;
        }
        const into = this.isEntry(child, content) ? this.listOf(out) : out;
        partedByPages(content).forEach((part, i) => {
          if (i > 0) this.breakPage(out);
          this.paragraph(child, part, into);
        });
        for (const box of boxes) {
          this.lists.close();
          out.push(...this.blocks(box));
        }
      } else if (child.name === "tbl") {
        this.lists.close();
        out.push(tableOf(child, (cell) => this.inside(cell), this.reading.paragraph));
      } else if (child.name === "sdt") {
        const kept = keptBy(tagOf(child), this.reading.kept)!;
        const content = childOf(child, "sdtContent") ?? { ...child, children: [] };
        const inside = this.lists.apart(() => this.blocks(content));
        if ("dataItem" in kept && this.lists.goOn(Number(kept["dataItem"]), inside)) continue;
        this.lists.close();
        out.push(...withKept(inside, kept, "div", this.reading.paragraph));
      } else if (child.name === "altChunk") this.tellChunk();
      else if (child.name === "bookmarkStart" && child.attributes["name"])
        between.push(element("a", { id: child.attributes["name"] }, [], this.reading.paragraph));
    }
    this.lists.close();
    if (between.length > 0) out.push(element("p", {}, between, this.reading.paragraph));
    return out;
  }

  private tellChunk(): void {
    this.reading.leftOut.push({
      where: `after paragraph ${this.reading.paragraph}`,
      sort: "Other documents within it",
      what: "A document that is packed within this one, which programs make a part of it when they open it",
      why: "It is left out. Open the document in a program for text, save it, and bring that.",
    });
  }

  private breakPage(out: ElementContent[]): void {
    this.lists.close();
    out.push(pageBreakAt(this.reading.paragraph));
  }

  /** Whether a paragraph is an entry of a list of contents: a field may end in the heading behind its list. */
  private isEntry(paragraph: XmlElement, content: ElementContent[]): boolean {
    const properties = childOf(paragraph, "pPr");
    const heading = outlineOf(properties) ?? this.reading.styles.of(valueOf(properties, "pStyle")).heading;
    const isLink = ({ tagName, properties: { href } }: Element): boolean =>
      tagName === "a" && href !== undefined;
    return (
      this.words.listed !== null && heading === null && allElements(element("p", {}, content, 1)).some(isLink)
    );
  }

  /** The list of contents in which a paragraph stands. */
  private listOf(out: ElementContent[]): ElementContent[] {
    const { listed } = this.words;
    const last = out.at(-1);
    if (last?.type === "element" && last.properties["dataContents"] === listed) return last.children;
    this.lists.close();
    const list = element("nav", { dataContents: listed }, [], this.reading.paragraph);
    out.push(list);
    return list.children;
  }

  /** The blocks of a part, out of what only wraps them. */
  private flat(parent: XmlElement): XmlElement[] {
    return elements(parent).flatMap((child) => {
      const isControl = child.name === "sdt" && keptBy(tagOf(child), this.reading.kept) === null;
      return isControl || wrappers.has(child.name) ? this.flat(child) : [child];
    });
  }

  /** What lies in a cell has lists of its own. */
  private inside(cell: XmlElement): ElementContent[] {
    const blocks = this.blocks(cell);
    // A cell of one paragraph holds words alone.
    const [only] = blocks;
    return blocks.length === 1 && only?.type === "element" && only.tagName === "p" ? only.children : blocks;
  }

  private next(paragraph: XmlElement): XmlElement {
    this.reading.paragraph += 1;
    return paragraph;
  }

  private paragraph(paragraph: XmlElement, content: ElementContent[], out: ElementContent[]): void {
    const properties = childOf(paragraph, "pPr");
    const style = this.reading.styles.of(valueOf(properties, "pStyle"));
    const heading = outlineOf(properties) ?? style.heading;
    const list = listOf(properties) ?? style.list;
    const align = lineSides[valueOf(properties, "jc") ?? style.align ?? ""];
    const make = (name: string): Element =>
      element(name, name === "p" && align ? { align } : {}, content, this.reading.paragraph);
    // A chapter begins on a page of its own.
    if (isOn(properties, "pageBreakBefore") && heading !== 0 && heading !== 1 && shows(content))
      this.breakPage(out);
    if (heading !== null && shows(content)) {
      this.lists.close();
      const made = make(heading === 0 ? "title-line" : `h${Math.min(heading, 6)}`);
      if (list && this.numbering.of(list.id, list.level).isShown) made.properties["dataNumbered"] = true;
      out.push(made);
      return;
    }
    const begins = content.some((one) => one.type === "element" && "dataBegins" in one.properties);
    if (list && list.id !== "0" && heading === null && (begins || shows(content))) {
      const item = begins && !shows(content) ? [] : [make("p")];
      const begun = this.lists.add(list.id, list.level, item, this.reading.paragraph);
      if (begun) out.push(begun);
      return;
    }
    this.lists.close();
    const last = out.at(-1);
    const lastIs = (name: string): Element | null =>
      last?.type === "element" && last.tagName === name ? last : null;
    if (style.isCode) {
      const listing = lastIs("pre");
      if (listing) listing.children.push({ type: "text", value: "\n" }, ...content);
      else out.push(make("pre"));
      for (const line of content)
        if (line.type === "element" && line.tagName === "br")
          Object.assign(line, { tagName: "span", children: [{ type: "text", value: "\n" }] });
    } else if (style.setOff !== null && shows(content)) {
      const said = style.setOff === "quotation" ? {} : { dataPart: style.setOff };
      const quote = lastIs("blockquote");
      if (quote && quote.properties["dataPart"] === said.dataPart) quote.children.push(make("p"));
      else out.push(element("blockquote", said, [make("p")], this.reading.paragraph));
    } else if (content.length > 0) out.push(make("p"));
  }
}
