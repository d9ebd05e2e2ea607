import type { Element, ElementContent } from "hast";
import type { LeftOut } from "../left-out.ts";
import type { DocumentParts, Relationship } from "./document-parts.ts";
import { linkOfField, type FieldLink } from "./fields.ts";
import { element } from "../hast-nodes.ts";
import { PicturesOfDocument } from "./pictures-of-document.ts";
import type { Styles } from "./styles.ts";
import { childOf, elements, isOn, textOf, valueOf, type XmlElement } from "../xml-tree.ts";

/** What is between a field's begin and its end; the result is what readers see. */
interface OpenField {
  instruction: string;
  isInResult: boolean;
  link: FieldLink | null;
}

/** What all parts of a document are read with. */
export interface DocumentReading {
  parts: DocumentParts;
  styles: Styles;
  pictures: PicturesOfDocument;
  leftOut: LeftOut[];
  /** How many paragraphs have been begun: the number of the one that is read. */
  paragraph: number;
  /** The links that have been begun: one that runs over paragraphs goes on under its name. */
  linkNames: Map<FieldLink, string>;
}

/** Words that hold nothing to read: what was deleted, and what programs note for themselves. */
const unread = new Set(["del", "moveFrom", "instrText", "delText", "rPr", "pPr", "fldData", "annotationRef"]);

/**
 * Reads what stands in the paragraphs of one part: words in their marks, links (as elements and as fields, which may run
 * over paragraphs), bookmarks, pictures, signs of notes.
 */
export class WordsOfDocument {
  private readonly fields: OpenField[] = [];
  private readonly links: FieldLink[] = [];
  private sink: ElementContent[] = [];
  /** The text boxes that hang on the paragraph, to be set behind it. */
  boxes: XmlElement[] = [];

  constructor(
    private readonly reading: DocumentReading,
    private readonly relationships: ReadonlyMap<string, Relationship>,
  ) {}

  /** The content of a paragraph. */
  read(paragraph: XmlElement): ElementContent[] {
    this.sink = [];
    this.boxes = [];
    this.all(paragraph);
    return this.sink;
  }

  private all(parent: XmlElement): void {
    for (const child of elements(parent)) this.one(child);
  }

  private one(child: XmlElement): void {
    switch (child.name) {
      case "r":
        return this.run(child);
      case "hyperlink":
        return this.hyperlink(child);
      case "fldSimple":
        return this.within(linkOfField(child.attributes["instr"] ?? ""), child);
      case "bookmarkStart":
        return this.bookmark(child);
      case "del":
      case "moveFrom":
        this.tellOnce(
          "Words that were deleted",
          "Words that were deleted and not yet agreed to",
          "They are left out, as if agreed to.",
        );
        return;
      case "oMath":
      case "oMathPara":
        this.tell("Formulas", "A formula", "Its letters are kept without their places.");
        return this.emit({ type: "text", value: textOf(child) });
      default:
        if (!unread.has(child.name)) this.all(child);
    }
  }

  private hyperlink(child: XmlElement): void {
    const { "r:id": id, anchor, docLocation, tooltip } = child.attributes;
    const target = id === undefined ? "" : (this.relationships.get(id)?.target ?? "");
    const place = anchor ?? docLocation;
    const href = target + (place ? `#${place}` : "");
    this.within(href === "" ? null : { href, title: tooltip ?? null }, child);
  }

  private within(link: FieldLink | null, parent: XmlElement): void {
    if (!link) return this.all(parent);
    this.links.push(link);
    this.all(parent);
    this.links.splice(this.links.lastIndexOf(link), 1);
  }

  private bookmark({ attributes }: XmlElement): void {
    const name = attributes["name"];
    if (!name || name === "_GoBack") return;
    this.emit(element("a", { id: name }, [], this.reading.paragraph));
  }

  private run(run: XmlElement): void {
    const properties = childOf(run, "rPr");
    if (isOn(properties, "vanish")) return;
    const style = this.reading.styles.of(valueOf(properties, "rStyle"));
    const marks: string[] = [];
    if (isOn(properties, "b") ?? style.bold) marks.push("strong");
    if (isOn(properties, "i") ?? style.italic) marks.push("em");
    if (isOn(properties, "strike") ?? isOn(properties, "dstrike")) marks.push("s");
    const line = valueOf(properties, "u");
    if (line !== undefined && line !== "none") marks.push("u");
    if (isOn(properties, "smallCaps")) marks.push("small-caps");
    const raised = valueOf(properties, "vertAlign");
    if (raised === "superscript") marks.push("sup");
    if (raised === "subscript") marks.push("sub");
    for (const child of elements(run)) this.inRun(child, marks);
  }

  private inRun(child: XmlElement, marks: readonly string[]): void {
    switch (child.name) {
      case "t":
        return this.words(textOf(child), marks);
      case "tab":
      case "ptab":
        return this.words(" ", marks);
      case "noBreakHyphen":
        return this.words("\u2011", marks);
      case "softHyphen":
        return this.words("\u00ad", marks);
      case "sym":
        return this.words(symbol(child), marks);
      case "br":
      case "cr":
        if (!["page", "column"].includes(child.attributes["type"] ?? ""))
          this.emit(element("br", {}, [], this.reading.paragraph));
        return;
      case "fldChar":
        return this.fieldMark(child.attributes["fldCharType"] ?? "");
      case "instrText":
        for (const field of this.fields.slice(-1)) if (!field.isInResult) field.instruction += textOf(child);
        return;
      case "footnoteReference":
      case "endnoteReference": {
        const note = `${child.name.slice(0, 1)}${child.attributes["id"] ?? ""}`;
        // A note in a link is no link's words.
        this.sink.push(element("note-reference", { dataNote: note }, [], this.reading.paragraph));
        return;
      }
      case "drawing":
      case "pict":
      case "object":
        return this.drawing(child);
      case "AlternateContent":
        return this.alternates(child, marks);
      case "ruby":
        for (const base of elements(childOf(child, "rubyBase"))) this.one(base);
        return;
      default:
    }
  }

  /** Of the ways in which something is given the first that can be read. */
  private alternates(given: XmlElement, marks: readonly string[]): void {
    const ways = elements(given).filter(({ name }) => name === "Choice" || name === "Fallback");
    const way = ways.find((one) => this.reading.pictures.canRead(one)) ?? ways[0];
    for (const child of elements(way)) this.inRun(child, marks);
  }

  private drawing(drawing: XmlElement): void {
    const { pictures, paragraph } = this.reading;
    for (const { source, alt, link, title } of pictures.read(drawing, this.relationships)) {
      const image = element("img", { src: source, alt }, [], paragraph);
      // Programs give a picture's link twice: around it, with what is said of it, and on it.
      if (link === null || link === this.links.at(-1)?.href) this.emit(image);
      else this.sink.push(element("a", { href: link, ...(title ? { title } : {}) }, [image], paragraph));
    }
    for (const { href } of pictures.linksOnShapes(drawing, this.relationships))
      this.tell(
        "Links on drawn shapes",
        `A link on a drawn shape to ${href}`,
        "Shapes are not taken over; the words in one are.",
        href,
      );
    this.boxes.push(...pictures.boxesIn(drawing));
  }

  private fieldMark(kind: string): void {
    if (kind === "begin") this.fields.push({ instruction: "", isInResult: false, link: null });
    const field = this.fields.at(-1);
    if (!field) return;
    if (kind === "separate") {
      field.isInResult = true;
      field.link = linkOfField(field.instruction);
      // The page number behind a heading of a contents list leads where its words do, and is the same link.
      if (field.link && this.links.at(-1)?.href === field.link.href) field.link = null;
      if (field.link) this.links.push(field.link);
      if (/^\s*TOC\b/i.test(field.instruction))
        this.tell(
          "Lists of contents",
          "The document’s own list of contents",
          "It stands as it was. Exports make one by themselves, and a signpost list follows the headings.",
        );
    }
    if (kind !== "end") return;
    this.fields.pop();
    if (field.link) this.links.splice(this.links.lastIndexOf(field.link), 1);
    else if (!field.isInResult) {
      const link = linkOfField(field.instruction);
      if (link)
        this.tell(
          "Links without words",
          `A link without words to ${link.href}`,
          "A link needs words or a picture to stand on.",
          link.href,
        );
    }
  }

  private words(text: string, marks: readonly string[]): void {
    if (text === "") return;
    // What a field says within the instruction of another is a part of that.
    const asking = this.fields.findLast(({ isInResult }) => !isInResult);
    if (asking) {
      asking.instruction += text;
      return;
    }
    let node: ElementContent = { type: "text", value: text };
    for (const mark of marks) node = element(mark, {}, [node], this.reading.paragraph);
    this.emit(node);
  }

  /** Puts something down, within the link that is open; what follows in the same link joins it. */
  private emit(node: ElementContent): void {
    const link = this.links.at(-1);
    if (!link) {
      this.sink.push(node);
      return;
    }
    const last = this.sink.at(-1) as (Element & { link?: FieldLink }) | undefined;
    if (last?.link === link) {
      last.children.push(node);
      return;
    }
    const { href, title } = link;
    const { linkNames } = this.reading;
    const name = linkNames.get(link) ?? `link-${linkNames.size + 1}`;
    linkNames.set(link, name);
    const properties = { href, dataLink: name, ...(title ? { title } : {}) };
    const made = element("a", properties, [node], this.reading.paragraph);
    this.sink.push(Object.defineProperty(made, "link", { value: link }));
  }

  private tell(sort: string, what: string, why: string, href?: string): void {
    const where = `paragraph ${this.reading.paragraph}`;
    this.reading.leftOut.push({ where, sort, what, why, ...(href === undefined ? {} : { href }) });
  }

  private tellOnce(sort: string, what: string, why: string): void {
    if (!this.reading.leftOut.some((one) => one.what === what)) this.tell(sort, what, why);
  }
}

/** A letter of a font of symbols (ECMA-376, 17.3.3.30): those that stand where Unicode has letters for private use. */
function symbol({ attributes }: XmlElement): string {
  const code = parseInt(attributes["char"] ?? "", 16);
  return code > 0 && code <= 0x10ffff && !(code >= 0xd800 && code <= 0xdfff)
    ? String.fromCodePoint(code)
    : "";
}
