import type { Element, ElementContent } from "hast";
import { toString } from "hast-util-to-string";
import type { Node } from "prosemirror-model";
import { schema } from "../../manuscript/schema.ts";
import { clip, trimBlanks, withoutLastNewline } from "./blanks.ts";
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
      case "note-body": {
        this.reading.noteBodies.set(
          String(element.properties["dataNote"]),
          this.atLeastOne(this.blocksOf(children)),
        );
        return [];
      }
      default:
        return this.blocksOf(children);
    }
  }

  /** A figure's content with its caption, which stands after a picture, and where it stood beside a table. */
  private figure(element: Element): Node[] {
    const hasTable = element.children.some((child) => child.type === "element" && child.tagName === "table");
    const isCaption = (child: ElementContent): child is Element =>
      child.type === "element" && child.tagName === "figcaption";
    const captions = element.children.filter(isCaption);
    const made = captions.map((caption) => this.caption(hasTable ? "table" : "figure", caption));
    return [...this.blocksOf(element.children.filter((child) => !isCaption(child))), ...made];
  }

  paragraph(children: ElementContent[]): Node | null {
    if (children.every((child) => child.type === "text" && child.value.trim() === "")) return null;
    const nodes = trimBlanks(this.words.inlines(children, []));
    return nodes.length > 0 ? schema.node("paragraph", null, nodes) : null;
  }

  private heading(element: Element): Node {
    const depth = Number(element.tagName.slice(1));
    const level = Math.min(4, Math.max(1, depth - 1));
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
      if (node.type.name === "anchor") this.reading.places.set(node.attrs["name"] as string, id);
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
    const words = trimBlanks(this.words.inlines(element.children, []));
    return schema.node("caption", { id, of }, words);
  }

  private cell(cell: Element): Node {
    const span = (name: string): number =>
      Math.min(100, Math.max(1, Math.trunc(Number(cell.properties[name])) || 1));
    const align = cell.properties["align"];
    const attrs = {
      colspan: span("colSpan"),
      rowspan: span("rowSpan"),
      align: align === "left" || align === "center" || align === "right" ? align : null,
    };
    const type = cell.tagName === "th" ? "table_header" : "table_cell";
    return schema.node(type, attrs, this.atLeastOne(this.blocksOf(cell.children)));
  }
}

/** The number with which a list begins. */
function startOf({ properties }: Element): number {
  const start = Math.trunc(Number(properties["start"] ?? 1));
  return Number.isSafeInteger(start) ? start : 1;
}
