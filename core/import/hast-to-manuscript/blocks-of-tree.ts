import type { Element, ElementContent } from "hast";
import { toString } from "hast-util-to-string";
import type { Node } from "prosemirror-model";
import { schema } from "../../manuscript/schema.ts";
import { allElements } from "../hast-nodes.ts";
import { clip, trimBlanks, withoutLastNewline } from "./blanks.ts";
import { signpostsOfElement } from "./carried.ts";
import { blocks, wrappers } from "./elements.ts";
import type { FileReading } from "./file-reading.ts";
import { inLanguage, languageMark } from "./language-of-tree.ts";
import { WordsOfTree } from "./words-of-tree.ts";

const longestLanguage = 100;

/** Makes the blocks of a manuscript from elements. */
export class BlocksOfTree {
  private readonly words: WordsOfTree;

  constructor(private readonly reading: FileReading) {
    this.words = new WordsOfTree(reading);
  }

  blocksOf(children: ElementContent[]): Node[] {
    const out: Node[] = [];
    let loose: ElementContent[] = [];
    const flush = (): void => {
      const paragraph = this.paragraph(loose);
      loose = [];
      if (paragraph) out.push(paragraph);
    };
    for (const child of children) {
      if (child.type === "element" && blocks.has(child.tagName)) {
        flush();
        out.push(...inLanguage(this.block(child), languageMark(child)));
      } else loose.push(child);
    }
    flush();
    return out;
  }

  private atLeastOne(nodes: Node[]): Node[] {
    return nodes.length > 0 ? nodes : [schema.node("paragraph")];
  }

  block(element: Element): Node[] {
    const { tagName, children } = element;
    const list = signpostsOfElement(element);
    if (list) {
      const id = this.placeOfList(element);
      this.reading.places.listFrom(id, list);
      return [schema.node("signposts", { ...list, id, section: null, anchors: [] })];
    }
    const { dataCaption } = element.properties;
    if (tagName === "p" && (dataCaption === "figure" || dataCaption === "table"))
      return [this.caption(dataCaption, element)];
    // In Markdown a paragraph has no attributes: what fills it does.
    const only = tagName === "p" && children.length === 1 ? children[0] : undefined;
    const of = only?.type === "element" ? only.properties["dataCaption"] : undefined;
    if (only?.type === "element" && (of === "figure" || of === "table")) return [this.caption(of, only)];
    if (tagName === "figure") return this.figure(element);
    if (wrappers.has(tagName)) return this.blocksOf(children);
    switch (tagName) {
      case "p": {
        const paragraph = this.paragraph(children);
        return paragraph ? [paragraph] : [];
      }
      case "h1":
      case "h2":
      case "h3":
      case "h4":
      case "h5":
      case "h6":
        return [this.heading(element)];
      case "ul":
        return this.list("bullet_list", {}, element);
      case "ol":
        return this.list("ordered_list", { start: startOf(element) }, element);
      case "blockquote":
        return [schema.node("blockquote", null, this.atLeastOne(this.blocksOf(children)))];
      case "pre":
        return [this.listing(element)];
      case "table":
        return this.table(element);
      case "hr":
        return [schema.node("section_break")];
      case "note-body":
        this.note(element);
        return [];
      default:
        return this.blocksOf(children);
    }
  }

  private note(element: Element): void {
    const name = String(element.properties["dataNote"]);
    const { id } = element.properties;
    if (typeof id === "string" && !this.reading.places.has(id))
      this.reading.places.set(id, this.reading.noteId(name));
    const [first, ...rest] = this.atLeastOne(this.blocksOf(element.children));
    const opens = first!.firstChild;
    // An anchor at its beginning is the note itself, which is a place already.
    const isPlace = opens?.type.name === "anchor" && first!.isTextblock;
    if (isPlace) this.reading.places.lead(opens.attrs["id"] as string, this.reading.noteId(name));
    const blocks = [isPlace ? first!.copy(first!.content.cut(opens.nodeSize)) : first!, ...rest];
    this.reading.noteBodies.set(name, blocks);
  }

  /** A figure's content with its caption, which stands after a picture, and where it stood beside a table. */
  private figure(element: Element): Node[] {
    const hasTable = element.children.some((child) => child.type === "element" && child.tagName === "table");
    const isCaption = (child: ElementContent): child is Element =>
      child.type === "element" && child.tagName === "figcaption";
    const captions = element.children.filter(isCaption);
    const made = captions.map((caption) => this.caption(hasTable ? "table" : "figure", caption));
    const first = element.children.find(({ type }) => type === "element");
    const content = this.blocksOf(element.children.filter((child) => !isCaption(child)));
    return hasTable && first && isCaption(first) ? [...made, ...content] : [...content, ...made];
  }

  /** The id of a list of jumps: the place of its element, or of the anchor at its beginning. */
  private placeOfList(element: Element): string {
    const named = [element, ...allElements(element)].find(
      ({ tagName, properties: { id, href } }) => id !== undefined && (tagName !== "a" || href === undefined),
    );
    return this.reading.places.placeOf(named ?? element);
  }

  paragraph(children: ElementContent[]): Node | null {
    if (children.every((child) => child.type === "text" && child.value.trim() === "")) return null;
    const nodes = trimBlanks(this.words.inlines(children, []));
    return nodes.length > 0 ? schema.node("paragraph", null, nodes) : null;
  }

  private heading(element: Element): Node {
    const depth = Number(element.tagName.slice(1));
    const level = Math.min(
      4,
      Math.max(1, Math.trunc(Number(element.properties["dataLevel"] ?? depth - 1)) || 1),
    );
    if (depth > 5 && toString(element).trim() !== "") {
      this.reading.tell(
        element,
        "Headings below level 4",
        `The heading “${clip(toString(element))}” of level ${depth}`,
        "It became a heading of level 4, the lowest.",
      );
    }
    const id = this.reading.places.headingPlace(element);
    return schema.node("heading", { id, level }, this.headingWords(element, id));
  }

  /** The words of a heading. Anchors inside it are the heading itself, which is a landing place already. */
  headingWords(element: Element, id: string): Node[] {
    const words = this.words.inlines(element.children, []);
    for (const node of words)
      if (node.type.name === "anchor") this.reading.places.lead(node.attrs["id"] as string, id);
    return trimBlanks(words.filter((node) => node.type.name !== "anchor"));
  }

  private list(type: string, attrs: Record<string, unknown>, element: Element): Node[] {
    const items = element.children
      .filter((child): child is Element => child.type === "element")
      .map((item) =>
        schema.node(
          "list_item",
          null,
          this.atLeastOne(this.blocksOf(item.tagName === "li" ? item.children : [item])),
        ),
      );
    return items.length > 0 ? [schema.node(type, attrs, items)] : [];
  }

  private listing(element: Element): Node {
    const code = element.children.find(
      (child): child is Element => child.type === "element" && child.tagName === "code",
    );
    const className = code?.properties["className"];
    const language = Array.isArray(className)
      ? (className.map(String).find((name) => name.startsWith("language-")) ?? "").slice(
          "language-".length,
          longestLanguage,
        )
      : "";
    const allowed = this.words.inlines(element.children, [], true).filter((node) => node.isText);
    const nodes = allowed.map((node) => node.mark(node.marks.filter((mark) => mark.type.name === "link")));
    return schema.node("code_block", { language: language || null }, withoutLastNewline(nodes));
  }

  private table(element: Element): Node[] {
    const rows: Element[] = [];
    const captions: Node[] = [];
    const collect = (node: Element): void => {
      for (const child of node.children) {
        if (child.type !== "element") continue;
        if (child.tagName === "tr") rows.push(child);
        else if (["thead", "tbody", "tfoot"].includes(child.tagName)) collect(child);
        else if (child.tagName === "caption") captions.push(this.caption("table", child));
      }
    };
    collect(element);
    const nodes = rows.map((row) =>
      schema.node(
        "table_row",
        null,
        row.children
          .filter(
            (cell): cell is Element =>
              cell.type === "element" && (cell.tagName === "td" || cell.tagName === "th"),
          )
          .map((cell) => this.cell(cell)),
      ),
    );
    const filled = nodes.filter((row) => row.childCount > 0);
    return filled.length > 0 ? [schema.node("table", null, filled), ...captions] : captions;
  }

  /** A caption; one with an id of its own is known by it. */
  private caption(of: "figure" | "table", element: Element): Node {
    const id = this.reading.places.placeOf(element);
    const words = this.words.inlines(element.children, []);
    // An anchor at its beginning is the caption itself, which is a place already.
    const [first] = words;
    if (first?.type.name !== "anchor") return schema.node("caption", { id, of }, trimBlanks(words));
    this.reading.places.lead(first.attrs["id"] as string, id);
    return schema.node("caption", { id, of }, trimBlanks(words.slice(1)));
  }

  private cell(cell: Element): Node {
    const span = (name: string): number =>
      Math.min(100, Math.max(1, Math.trunc(Number(cell.properties[name])) || 1));
    const attrs = { colspan: span("colSpan"), rowspan: span("rowSpan"), align: alignOf(cell) };
    const type = cell.tagName === "th" ? "table_header" : "table_cell";
    return schema.node(type, attrs, this.atLeastOne(this.blocksOf(cell.children)));
  }
}

/** How a cell is aligned: by its attribute, its style, or a class of that name. */
function alignOf({ properties: { align, style, className } }: Element): "left" | "center" | "right" | null {
  const styled = /(?:^|;)\s*text-align\s*:\s*(\w+)/i.exec(String(style ?? ""))?.[1];
  const said = [align, styled, ...[className].flat()].map((one) => String(one).toLowerCase());
  return (["left", "center", "right"] as const).find((one) => said.includes(one)) ?? null;
}

/** The number with which a list begins. */
function startOf({ properties }: Element): number {
  const start = Math.trunc(Number(properties["start"] ?? 1));
  return Number.isSafeInteger(start) ? start : 1;
}
