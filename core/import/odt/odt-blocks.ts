import type { Element, ElementContent } from "hast";
import { allElements, element, pageBreakAt, shows } from "../hast-nodes.ts";
import { setOffOfStyle } from "../looks-by-name.ts";
import { keptBy, withKept } from "../kept-of-export.ts";
import type { OdtStyle } from "./odt-styles.ts";
import { childOf, elements, textOf, type XmlElement } from "../xml-tree.ts";
import { shapes, tagIn, type OdtReading, type OdtWords } from "./odt-words.ts";

const cellSides: Readonly<Record<string, "left" | "center" | "right">> = {
  left: "left",
  center: "center",
  end: "right",
  right: "right",
};

const mostRepeated = 30;

/** Reads the blocks of a document: headings, paragraphs, lists, tables, sections, indexes. */
export class OdtBlocks {
  /** How paragraphs are aligned, as the document says it. */
  private readonly sides = new Map<ElementContent, string>();
  /** Lists that an export had to end, for what an item may not hold here. */
  private readonly broken = new Set<ElementContent>();

  constructor(
    private readonly reading: OdtReading,
    private readonly words: OdtWords,
  ) {}

  blocks(parent: XmlElement): ElementContent[] {
    const out: ElementContent[] = [];
    for (const child of elements(parent)) {
      const last = out.at(-1);
      const made = this.block(child, out);
      const [list] = made;
      const goesOn = last !== undefined && this.broken.has(last) && child.attributes["continue-numbering"];
      if (goesOn && last.type === "element" && list?.type === "element") last.children.push(...list.children);
      else out.push(...made);
    }
    return out;
  }

  /** A section: one of an export says what is in it. */
  private section(section: XmlElement, before: readonly ElementContent[]): ElementContent[] {
    const kept = keptBy(tagIn(section.attributes["name"]), this.reading.kept);
    if (!kept) return this.within(section, "region");
    const inside = this.blocks(section);
    const list = before.at(-1);
    const item = list?.type === "element" ? list.children.at(-1) : undefined;
    if ("dataItem" in kept && list && item?.type === "element") {
      item.children.push(...inside);
      this.broken.add(list);
      return [];
    }
    return withKept(inside, kept, "div", this.reading.paragraph);
  }

  private block(child: XmlElement, before: ElementContent[]): ElementContent[] {
    const { name, attributes } = child;
    switch (name) {
      case "h":
        return this.heading(child);
      case "p":
        return this.paragraph(child, before);
      case "list":
        return this.list(child, attributes["style-name"], 1);
      case "table":
        return [this.table(child)];
      case "section":
        return this.section(child, before);
      case "table-of-content":
        return this.listOf("contents", child);
      case "illustration-index":
        return this.listOf("figures", child);
      case "table-index":
        return this.listOf("tables", child);
      case "frame":
      case "a":
        return this.line({ ...child, name: "p", attributes: {}, children: [child] }, "p");
      case "tracked-changes":
        this.reading.leftOut.push({
          where: null,
          sort: "Words that were deleted",
          what: "Words that were deleted and not yet agreed to",
          why: "They are left out, as if agreed to.",
        });
        return [];
      case "numbered-paragraph":
        return this.blocks(child);
      default:
        if (shapes.has(name))
          return this.line({ ...child, name: "p", attributes: {}, children: [child] }, "p");
        // Indexes of other sorts have their lines in a body, too.
        return childOf(child, "index-body")
          ? this.blocks(childOf(child, "index-body")!)
          : name === "index-title"
            ? this.blocks(child)
            : [];
    }
  }

  /** A list that the document made of its headings or captions. */
  private listOf(kind: "contents" | "figures" | "tables", index: XmlElement): ElementContent[] {
    const paragraph = this.reading.paragraph + 1;
    const lines = this.blocks(childOf(index, "index-body") ?? { ...index, children: [] });
    return [element("nav", { dataContents: kind }, lines, paragraph)];
  }

  private within(section: XmlElement, kind: string): ElementContent[] {
    const id = section.attributes["name"];
    const content = this.blocks(section);
    return id ? [element("section", { id: `${id}|${kind}` }, content, this.reading.paragraph)] : content;
  }

  private heading(heading: XmlElement): ElementContent[] {
    const { "outline-level": said, "is-list-header": isBare } = heading.attributes;
    const level = Math.max(1, Number(said ?? 1) || 1);
    const made = this.line(heading, `h${Math.min(6, level)}`);
    return isBare !== "true" && this.reading.styles.isNumbered(level) ? numbered(made) : made;
  }

  /** One paragraph as an element, and the text boxes that hang on it behind it. */
  private line(paragraph: XmlElement, tag: string): ElementContent[] {
    this.reading.paragraph += 1;
    const number = this.reading.paragraph;
    this.words.boxes = [];
    const content = this.words.read(paragraph);
    const boxes = this.words.boxes;
    const isHeading = /^h\d$/.test(tag) && shows(content);
    const made =
      content.length > 0 ? [element(isHeading || !/^h\d$/.test(tag) ? tag : "p", {}, content, number)] : [];
    return [...made, ...boxes.flatMap((box) => this.blocks(box))];
  }

  private paragraph(paragraph: XmlElement, before: ElementContent[]): ElementContent[] {
    const style = this.reading.styles.of(paragraph.attributes["style-name"]);
    const level = style.outlineLevel;
    if (level !== null) {
      const made = this.line(paragraph, `h${Math.min(6, level)}`);
      return this.reading.styles.isNumbered(level) ? numbered(made) : made;
    }
    if (style.name === "Title") return this.line(paragraph, "title-line");
    const made = this.ofStyle(paragraph, style, before.at(-1));
    for (const one of made)
      if (one.type === "element" && one.tagName === "p" && style.side) {
        this.sides.set(one, style.side);
        if (style.align) one.properties["align"] = style.align;
      }
    return style.beginsPage && made.length > 0 ? [pageBreakAt(this.reading.paragraph), ...made] : made;
  }

  /** A paragraph as what its style calls it, joined to what is before it where that is the same. */
  private ofStyle(
    paragraph: XmlElement,
    { name: encoded }: OdtStyle,
    last: ElementContent | undefined,
  ): ElementContent[] {
    const name = encoded.replace(/_20_/g, " ");
    const part = setOffOfStyle(name);
    if (part !== null) {
      const quoted = this.line(paragraph, "p");
      const isSame =
        last?.type === "element" && last.tagName === "blockquote" && last.properties["dataPart"] === part;
      if (!isSame)
        return quoted.length > 0
          ? [element("blockquote", { dataPart: part }, quoted, this.reading.paragraph)]
          : [];
      last.children.push(...quoted);
      return [];
    }
    if (name === "Preformatted Text") {
      const made = this.line(paragraph, "pre");
      for (const line of made) if (line.type === "element") linesOfListing(line);
      const [line] = made;
      if (last?.type !== "element" || last.tagName !== "pre" || line?.type !== "element") return made;
      last.children.push({ type: "text", value: "\n" }, ...line.children);
      return [];
    }
    return this.line(paragraph, "p");
  }

  /** How all paragraphs of a cell are aligned; null where it is as usual, or not all are alike. */
  private alignOfAll(blocks: readonly ElementContent[]): "left" | "center" | "right" | null {
    const all = new Set(blocks.map((one) => this.sides.get(one) ?? ""));
    const [only] = all;
    return all.size === 1 ? (cellSides[only!] ?? null) : null;
  }

  /** Headings that a program numbers by a list are headings and no items. */
  private list(list: XmlElement, style: string | undefined, level: number): ElementContent[] {
    const own = list.attributes["style-name"] ?? style;
    const { isNumbered, start } = this.reading.styles.listLevel(own, level);
    const items = elements(list).filter(({ name }) => name === "list-item" || name === "list-header");
    const made = items.map((item) =>
      elements(item).flatMap((child) =>
        child.name === "list" ? this.list(child, own, level + 1) : this.block(child, []),
      ),
    );
    const inItems = made.flat();
    const isOfHeadings =
      inItems.length > 0 &&
      inItems.every((block) => block.type === "element" && /^h\d$|^title-line$/.test(block.tagName));
    if (isOfHeadings) return isNumbered ? numbered(inItems) : inItems;
    const first = Number(items[0]?.attributes["start-value"] ?? start) || start;
    return [
      element(
        isNumbered ? "ol" : "ul",
        isNumbered ? { start: first } : {},
        made.map((content) => element("li", {}, content, this.reading.paragraph)),
        this.reading.paragraph,
      ),
    ];
  }

  private table(table: XmlElement): Element {
    const name = table.attributes["name"];
    const rows = this.rows(table, false);
    return element("table", name ? { id: `${name}|table` } : {}, rows, this.reading.paragraph);
  }

  private rows(parent: XmlElement, isHead: boolean): Element[] {
    return elements(parent).flatMap((child): Element[] => {
      if (child.name === "table-header-rows") return this.rows(child, true);
      if (child.name === "table-rows" || child.name === "table-row-group") return this.rows(child, isHead);
      if (child.name !== "table-row") return [];
      return Array.from({ length: this.times(child, "rows") }, () => this.row(child, isHead));
    });
  }

  /** How often an empty row or cell stands there (part 3, 19.675 and 19.678), which may fill a whole sheet with none. */
  private times(part: XmlElement, what: "rows" | "columns"): number {
    const said = Number(part.attributes[`number-${what}-repeated`] ?? 1) || 1;
    return said > 1 && said <= mostRepeated && textOf(part).trim() === "" ? said : 1;
  }

  private row(row: XmlElement, isHead: boolean): Element {
    const cells = elements(row)
      .filter(({ name }) => name === "table-cell")
      .flatMap((cell) => Array<XmlElement>(this.times(cell, "columns")).fill(cell))
      .map((cell) => {
        const span = (kind: string): number => Number(cell.attributes[`number-${kind}-spanned`] ?? 1) || 1;
        const blocks = this.blocks(cell);
        const [only] = blocks;
        const content =
          blocks.length === 1 && only?.type === "element" && only.tagName === "p" ? only.children : blocks;
        const spans = {
          ...(span("columns") > 1 ? { colSpan: span("columns") } : {}),
          ...(span("rows") > 1 ? { rowSpan: span("rows") } : {}),
        };
        const align = this.alignOfAll(blocks);
        if (align !== null)
          for (const one of blocks) if (one.type === "element") delete one.properties["align"];
        const shown = align === null ? spans : { ...spans, align };
        return element(isHead ? "th" : "td", shown, content, this.reading.paragraph);
      });
    return element("tr", {}, cells, this.reading.paragraph);
  }
}

/** Notes that headings carry numbers of the document's. */
function numbered(blocks: ElementContent[]): ElementContent[] {
  for (const one of blocks)
    if (one.type === "element" && /^h\d$/.test(one.tagName)) one.properties["dataNumbered"] = true;
  return blocks;
}

/** Breaks within a listing are the ends of its lines. */
function linesOfListing(listing: Element): void {
  for (const one of allElements(listing))
    if (one.tagName === "br")
      Object.assign(one, { tagName: "span", children: [{ type: "text", value: "\n" }] });
}
