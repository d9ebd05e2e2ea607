import type { Element, ElementContent } from "hast";
import type { LeftOut } from "../left-out.ts";
import type { DocumentParts, Relationship } from "./document-parts.ts";
import { brackets } from "../readings.ts";
import { keptBy, withKept } from "../kept-of-export.ts";
import { isOtherLanguage } from "../other-language.ts";
import { tagOf } from "./tags.ts";
import { countedByField, linkOfField, listedByField, type FieldLink } from "./fields.ts";
import { element, pageBreakAt } from "../hast-nodes.ts";
import { mathOfDocument } from "./math-of-document.ts";
import { PicturesOfDocument } from "./pictures-of-document.ts";
import { symbolsOf, isSymbolFont } from "../symbol-fonts.ts";
import type { Styles } from "./styles.ts";
import { childOf, elements, isOn, shownText, textOf, valueOf, type XmlElement } from "../xml-tree.ts";

/** What is between a field's begin and its end; the result is what readers see. */
interface OpenField {
  instruction: string;
  isInResult: boolean;
  link: FieldLink | null;
  /** What it counts, where it is a number that does. */
  counted: string | null;
}

/** What all parts of a document are read with. */
export interface DocumentReading {
  parts: DocumentParts;
  styles: Styles;
  pictures: PicturesOfDocument;
  leftOut: LeftOut[];
  /** The language of the document; null where it says none. */
  language: string | null;
  /** What exports of ours say in properties of the document. */
  kept: ReadonlyMap<string, string>;
  /** How many paragraphs have been begun: the number of the one that is read. */
  paragraph: number;
  /** The notes whose signs stand in bookmarks, by the bookmarks' names in small letters. */
  notesAt: Map<string, string>;
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
  /** Of what the list is the list in which the paragraph stands; null outside of lists. */
  listed: "contents" | "figures" | "tables" | null = null;
  private isListEnding = false;
  /** The bookmarks that are open, by their ids. */
  private readonly bookmarks = new Map<string, string>();

  constructor(
    private readonly reading: DocumentReading,
    private readonly relationships: ReadonlyMap<string, Relationship>,
    /** The signs that begin its fields. */
    private readonly ended: ReadonlySet<XmlElement>,
  ) {}

  /** The content of a paragraph. */
  read(paragraph: XmlElement): ElementContent[] {
    this.sink = [];
    this.boxes = [];
    if (this.isListEnding) this.listed = null;
    this.isListEnding = false;
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
        return this.simpleField(child);
      case "bookmarkStart":
        return this.bookmark(child);
      case "bookmarkEnd":
        this.bookmarks.delete(child.attributes["id"] ?? "");
        return;
      case "sdt":
        return this.control(child);
      case "del":
      case "moveFrom":
        this.tellOnce(
          "Words that were deleted",
          "Words that were deleted and not yet agreed to",
          "They are left out, as if agreed to.",
        );
        return;
      case "oMath":
        return this.formula(child, false);
      case "oMathPara":
        for (const formula of elements(child)) if (formula.name === "oMath") this.formula(formula, true);
        return;
      default:
        if (!unread.has(child.name)) this.all(child);
    }
  }

  private simpleField(field: XmlElement): void {
    const instruction = field.attributes["instr"] ?? "";
    const counted = countedByField(instruction);
    if (counted === null) return this.within(linkOfField(instruction), field);
    this.fields.push({ instruction, isInResult: true, link: null, counted });
    this.all(field);
    this.fields.pop();
  }

  private control(control: XmlElement): void {
    const kept = keptBy(tagOf(control), this.reading.kept);
    if (!kept) return this.all(control);
    if ("dataBegins" in kept) {
      this.sink.push(element("span", kept, [], this.reading.paragraph));
      return;
    }
    const before = this.sink.length;
    this.all(childOf(control, "sdtContent") ?? control);
    const content = this.sink.splice(before);
    if (content.length > 0) this.sink.push(...withKept(content, kept, "span", this.reading.paragraph));
  }

  private formula(formula: XmlElement, display: boolean): void {
    this.placesAndLinksIn(formula);
    this.emit(mathOfDocument(formula, display, this.reading.paragraph));
  }

  /** Places within a formula stand before it; links it cannot hold. */
  private placesAndLinksIn(formula: XmlElement): void {
    for (const child of elements(formula)) {
      const href = child.name === "hyperlink" ? this.hrefOf(child) : "";
      if (child.name === "bookmarkStart") this.bookmark(child);
      if (href !== "")
        this.tell(
          "Links that a book cannot hold",
          `The link “${shownText(child)}” to ${href}`,
          "It stands within a formula, which holds no links. Its words are kept.",
          href,
        );
      this.placesAndLinksIn(child);
    }
  }

  private hyperlink(child: XmlElement): void {
    const href = this.hrefOf(child);
    this.within(href === "" ? null : { href, title: child.attributes["tooltip"] ?? null }, child);
  }

  private hrefOf({ attributes }: XmlElement): string {
    const { "r:id": id, anchor, docLocation } = attributes;
    const target = id === undefined ? "" : (this.relationships.get(id)?.target ?? "");
    const place = anchor ?? docLocation;
    return target + (place ? `#${place}` : "");
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
    this.bookmarks.set(attributes["id"] ?? "", name);
    const own = this.reading.kept.get(`vennet-anchor-${name}`);
    const role = this.reading.kept.get(`vennet-role-${name}`);
    const called = {
      ...(own === undefined ? {} : { dataAnchor: own }),
      ...(role === undefined ? {} : { dataRole: role }),
    };
    this.emit(element("a", { id: name, ...called }, [], this.reading.paragraph));
  }

  private run(run: XmlElement): void {
    const properties = childOf(run, "rPr");
    if (isOn(properties, "vanish")) return;
    const font = childOf(properties, "rFonts")?.attributes["ascii"];
    const style = this.reading.styles.of(valueOf(properties, "rStyle"));
    const marks: string[] = [];
    if (isOn(properties, "b") ?? style.bold) marks.push("strong");
    if (isOn(properties, "i") ?? style.italic) marks.push("em");
    if (style.isCode) marks.push("code");
    if (isOn(properties, "strike") ?? isOn(properties, "dstrike")) marks.push("s");
    const line = valueOf(properties, "u");
    if (line !== undefined && line !== "none") marks.push("u");
    if (isOn(properties, "smallCaps")) marks.push("small-caps");
    const raised = valueOf(properties, "vertAlign");
    if (raised === "superscript") marks.push("sup");
    if (raised === "subscript") marks.push("sub");
    const spoken = childOf(properties, "lang")?.attributes[isOn(properties, "rtl") ? "bidi" : "val"];
    if (spoken && isOtherLanguage(spoken, this.reading.language, textOf(run))) marks.push(`lang ${spoken}`);
    for (const child of elements(run))
      if (child.name === "t" && isSymbolFont(font)) this.words(symbolsOf(font, textOf(child)), marks);
      else this.inRun(child, marks);
  }

  private inRun(child: XmlElement, marks: readonly string[]): void {
    switch (child.name) {
      case "t":
        return this.words(textOf(child), marks);
      case "tab":
      case "ptab":
        return this.words("\t", marks);
      case "noBreakHyphen":
        return this.words("\u2011", marks);
      case "softHyphen":
        return this.words("\u00ad", marks);
      case "sym":
        return this.words(symbol(child), marks);
      case "br":
      case "cr":
        if (child.attributes["type"] === "page") this.sink.push(pageBreakAt(this.reading.paragraph));
        else if (child.attributes["type"] !== "column")
          this.emit(element("br", {}, [], this.reading.paragraph));
        return;
      case "fldChar":
        return this.fieldMark(child);
      case "instrText":
        for (const field of this.fields.slice(-1)) if (!field.isInResult) field.instruction += textOf(child);
        return;
      case "footnoteReference":
      case "endnoteReference": {
        const note = `${child.name.slice(0, 1)}${child.attributes["id"] ?? ""}`;
        for (const bookmark of this.bookmarks.values())
          this.reading.notesAt.set(bookmark.toLowerCase(), note);
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
      case "ruby": {
        const base = childOf(child, "rubyBase");
        const [open, close] = brackets(base ? textOf(base) : "");
        const above = childOf(child, "rt");
        const reading = above ? textOf(above) : "";
        for (const letters of elements(base)) this.one(letters);
        return reading.trim() === "" ? undefined : this.words(open + reading + close, marks);
      }
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

  private fieldMark(mark: XmlElement): void {
    const kind = mark.attributes["fldCharType"];
    if (kind === "begin" && this.ended.has(mark))
      this.fields.push({ instruction: "", isInResult: false, link: null, counted: null });
    const field = this.fields.at(-1);
    if (!field) return;
    if (kind === "separate" && !field.isInResult) {
      field.isInResult = true;
      field.link = linkOfField(field.instruction);
      field.counted = countedByField(field.instruction);
      // The page number behind a heading of a contents list leads where its words do, and is the same link.
      if (field.link && this.links.at(-1)?.href === field.link.href) field.link = null;
      if (field.link) this.links.push(field.link);
      this.listed ??= listedByField(field.instruction);
    }
    if (kind !== "end") return;
    this.fields.pop();
    if (listedByField(field.instruction) !== null) this.isListEnding = true;
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
    const counted = this.fields.findLast((field) => field.counted !== null)?.counted;
    if (counted) node = element("span", { dataCounted: counted }, [node], this.reading.paragraph);
    for (const mark of marks) {
      const [name = "", language] = mark.split(" ");
      const said = language === undefined ? {} : { lang: language };
      node = element(language === undefined ? name : "span", said, [node], this.reading.paragraph);
    }
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
    const { href, title, follows, isNoJump } = link;
    const { linkNames } = this.reading;
    const name = linkNames.get(link) ?? `link-${linkNames.size + 1}`;
    linkNames.set(link, name);
    const properties = {
      href,
      dataLink: name,
      ...(title ? { title } : {}),
      ...(follows ? { dataReference: follows } : {}),
      ...(isNoJump ? { dataNoJump: true } : {}),
    };
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

/** A letter of a font of symbols (ECMA-376, 17.3.3.30). */
function symbol({ attributes }: XmlElement): string {
  const code = parseInt(attributes["char"] ?? "", 16);
  const isLetter = code > 0 && code <= 0x10ffff && !(code >= 0xd800 && code <= 0xdfff);
  return isLetter ? symbolsOf(attributes["font"] ?? "", String.fromCodePoint(code)) : "";
}
