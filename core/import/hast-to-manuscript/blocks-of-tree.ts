import type { Element, ElementContent } from "hast";
import { toString } from "hast-util-to-string";
import { Mark, type Node } from "prosemirror-model";
import { pictureAttrs } from "../../manuscript/attributes.ts";
import { schema } from "../../manuscript/schema.ts";
import type { WordMark } from "../../manuscript/word-marks.ts";
import { allElements } from "../hast-nodes.ts";
import { clip, trimBlanks, withoutLastNewline } from "./blanks.ts";
import { signpostsOfElement } from "./carried.ts";
import { blocks, wrappers } from "./elements.ts";
import type { FileReading } from "./file-reading.ts";
import { inLanguage, languageMark } from "./language-of-tree.ts";
import { marksOfParagraph } from "./marks-of-style.ts";
import { beginsPage, isCredit, setOffOfElement, taskOfItem, withoutCredits } from "./set-off-of-tree.ts";
import { WordsOfTree } from "./words-of-tree.ts";

const longestLanguage = 100;

/** Of what an element is a caption, where it says so: a paragraph, or what fills one or stands in a cell of Markdown. */
function captionKind({ tagName, properties: { dataCaption } }: Element): "figure" | "table" | null {
  const isOne = tagName === "p" || tagName === "span";
  return isOne && (dataCaption === "figure" || dataCaption === "table") ? dataCaption : null;
}

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
      if (child.type === "element" && (blocks.has(child.tagName) || captionKind(child))) {
        flush();
        if (beginsPage(child)) out.push(schema.node("page_break"));
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
    const of = captionKind(element);
    if (of) return [this.caption(of, element)];
    // In Markdown a paragraph has no attributes: what fills it does.
    const only = tagName === "p" && children.length === 1 ? children[0] : undefined;
    const ofOnly = only?.type === "element" ? captionKind(only) : null;
    if (only?.type === "element" && ofOnly) return [this.caption(ofOnly, only)];
    if (isCredit(element)) return [this.credit(element)];
    if (only?.type === "element" && isCredit(only)) return [this.credit(only)];
    if (element.properties["dataPart"] === "page-break") return [schema.node("page_break")];
    const kind = setOffOfElement(element);
    if (kind !== null) return [schema.node("blockquote", { kind }, this.atLeastOne(this.blocksOf(children)))];
    if (tagName === "figure") return this.figure(element);
    if (tagName === "dl") return this.definitions(element);
    if (wrappers.has(tagName)) return alignedIn(element, this.blocksOf(children));
    switch (tagName) {
      case "p": {
        const paragraph = this.paragraph(children, marksOfParagraph(element));
        return paragraph ? alignedIn(element, [paragraph]) : [];
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
      case "pre":
        return this.listing(element);
      case "table":
        return this.table(element);
      case "hr":
        // One that nobody sees may still begin a page.
        return /(^|;)\s*display\s*:\s*none/i.test(String(element.properties["style"]))
          ? []
          : [schema.node("section_break")];
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
    const begins = isPlace ? first!.copy(first!.content.cut(opens.nodeSize)) : first!;
    // A line that held the place alone is none of the note's.
    const isIdle = isPlace && begins.content.size === 0 && rest.length > 0;
    this.reading.noteBodies.set(name, isIdle ? rest : [begins, ...rest]);
  }

  /** A figure's content with its caption, which stands after a picture, and where it stood beside a table. */
  private figure(element: Element): Node[] {
    const { rest: children, credits } = withoutCredits(element.children);
    const hasTable = children.some((child) => child.type === "element" && child.tagName === "table");
    const isCaption = (child: ElementContent): child is Element =>
      child.type === "element" && child.tagName === "figcaption";
    const captions = children.filter(isCaption);
    const made = captions.map((caption) => this.caption(hasTable ? "table" : "figure", caption));
    const first = children.find(({ type }) => type === "element");
    const content = this.blocksOf(children.filter((child) => !isCaption(child)));
    const shown = hasTable && first && isCaption(first) ? [...made, ...content] : [...content, ...made];
    return [...shown, ...credits.map((credit) => this.credit(credit))];
  }

  /** The id of a list of jumps: the place of its element, or of the anchor at its beginning. */
  private placeOfList(element: Element): string {
    const named = [element, ...allElements(element)].find(
      ({ tagName, properties: { id, href } }) => id !== undefined && (tagName !== "a" || href === undefined),
    );
    return this.reading.places.placeOf(named ?? element);
  }

  /** @param marks what all of its words have */
  paragraph(children: ElementContent[], marks: readonly WordMark[] = []): Node | null {
    if (children.every((child) => child.type === "text" && child.value.trim() === "")) return null;
    const all = Mark.setFrom(marks.map((name) => schema.mark(name)));
    const nodes = trimBlanks(this.words.inlines(children, all));
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
      .map((item) => {
        const done = item.tagName === "li" ? taskOfItem(item) : null;
        const content = this.blocksOf(item.tagName === "li" ? item.children : [item]);
        return schema.node("list_item", { done }, this.atLeastOne(content));
      });
    return items.length > 0 ? [schema.node(type, attrs, items)] : [];
  }

  /** Terms and what they mean; groups of them may be wrapped (HTML, 4.4.9). */
  private definitions(list: Element): Node[] {
    const parts = list.children.flatMap((child): Node[] => {
      if (child.type !== "element") return [];
      if (child.tagName === "dt") return this.term(child);
      if (child.tagName === "dd")
        return inLanguage(
          [schema.node("definition", null, this.atLeastOne(this.blocksOf(child.children)))],
          languageMark(child),
        );
      const inside = this.definitions(child)[0];
      return inside ? [...inside.children] : [];
    });
    return parts.length > 0 ? [schema.node("definition_list", null, parts)] : [];
  }

  /** A term is one line of words; what else stands in it goes before what it means. */
  private term(element: Element): Node[] {
    const [first, ...more] = inLanguage(this.blocksOf(element.children), languageMark(element));
    if (!first) return [];
    const isWords = first.type.name === "paragraph" || first.type.name === "heading";
    const rest = isWords ? more : [first, ...more];
    return [
      ...(isWords ? [schema.node("definition_term", null, first.content)] : []),
      ...(rest.length > 0 ? [schema.node("definition", null, rest)] : []),
    ];
  }

  private credit(element: Element): Node {
    return schema.node("credit", null, trimBlanks(this.words.inlines(element.children, [])));
  }

  /** A listing, which holds letters and links alone; places in it stand before it. */
  private listing(element: Element): Node[] {
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
    const inlines = this.words.inlines(element.children, [], true);
    const letters = inlines.flatMap((node) => {
      if (node.isText) return [node];
      if (node.type.name === "hard_break") return [schema.text("\n", node.marks)];
      const { alt } = node.type.name === "picture" ? pictureAttrs(node) : { alt: "" };
      return alt === "" ? [] : [schema.text(alt, node.marks)];
    });
    const nodes = letters.map((node) => node.mark(node.marks.filter((mark) => mark.type.name === "link")));
    const anchors = inlines.filter(({ type }) => type.name === "anchor").map((anchor) => anchor.mark([]));
    return [
      ...(anchors.length > 0 ? [schema.node("paragraph", null, anchors)] : []),
      schema.node("code_block", { language: language || null }, withoutLastNewline(nodes)),
    ];
  }

  private table(element: Element): Node[] {
    const rows: Element[] = [];
    const captions: Node[] = [];
    // A caption stands above its table unless it says otherwise (CSS 2.1, 17.4.1).
    let isBelow = false;
    const collect = (node: Element): void => {
      for (const child of node.children) {
        if (child.type !== "element") continue;
        if (child.tagName === "tr") rows.push(child);
        else if (["thead", "tbody", "tfoot"].includes(child.tagName)) collect(child);
        else if (child.tagName === "caption") {
          captions.push(this.caption("table", child));
          isBelow =
            /caption-side:\s*bottom/i.test(String(child.properties["style"])) ||
            child.properties["align"] === "bottom";
        }
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
    if (filled.length === 0) return captions;
    const table = schema.node("table", null, filled);
    if (isBelow || captions.length > 1) return [table, ...captions];
    for (const caption of captions) this.reading.captionsAbove.add(caption.attrs["id"] as string);
    return [...captions, table];
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

/** Paragraphs aligned as an element has them. */
function alignedIn({ properties, tagName }: Element, nodes: Node[]): Node[] {
  return alignedAs(tagName === "center" ? "center" : lineAlignOf(properties), nodes);
}

/** Paragraphs that say nothing of it by themselves, aligned as what is around them is. */
export function alignedAs(said: LineAlign, nodes: Node[]): Node[] {
  if (said === null) return nodes;
  return nodes.map((node) =>
    node.type.name === "paragraph" && node.attrs["align"] === null
      ? schema.node("paragraph", { align: said }, node.content)
      : node,
  );
}

/** How the lines of a paragraph are aligned; null where it is as usual. */
export type LineAlign = "center" | "end" | null;

/**
 * How what wraps a part of a page aligns what is in it: by being for that, by its attribute or its style. A class of that name
 * is mostly of how the page is laid out.
 * @param around how what is around it does
 */
export function alignWithin(
  { tagName, properties: { align, style } }: Element,
  around: LineAlign,
): LineAlign {
  if (tagName === "center") return "center";
  const says = saidSides({ align, style }).some((side) =>
    /^(left|right|start|end|center|justify)$/.test(side),
  );
  return says ? lineAlignOf({ align, style }) : around;
}

function lineAlignOf(properties: Element["properties"]): LineAlign {
  const said = saidSides(properties);
  return said.includes("center") ? "center" : said.includes("end") || said.includes("right") ? "end" : null;
}

/** What an element says of its sides: by its attribute, its style, or a class of that name. */
function saidSides({ align, style, className }: Element["properties"]): string[] {
  const styled = /(?:^|;)\s*text-align\s*:\s*(\w+)/i.exec(String(style ?? ""))?.[1];
  return [align, styled, ...[className].flat()].map((one) => String(one).toLowerCase());
}

/** How a cell is aligned. */
function alignOf({ properties }: Element): "left" | "center" | "right" | null {
  const said = saidSides(properties);
  return (["left", "center", "right"] as const).find((one) => said.includes(one)) ?? null;
}

/** The number with which a list begins. */
function startOf({ properties }: Element): number {
  const start = Math.trunc(Number(properties["start"] ?? 1));
  return Number.isSafeInteger(start) ? start : 1;
}
