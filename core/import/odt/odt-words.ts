import type { Element, ElementContent } from "hast";
import { areaOfShape, lengthOf, type FoundArea } from "../areas.ts";
import { element } from "../hast-nodes.ts";
import type { LeftOut } from "../left-out.ts";
import type { EnclosedFile } from "../manuscript-reader.ts";
import { isPicture } from "../pictures.ts";
import { childOf, elements, shownText, textOf, type XmlElement } from "../xml-tree.ts";
import { keptBy, withKept } from "../kept-of-export.ts";
import { brackets } from "../readings.ts";
import { isSymbolFont, symbolsOf } from "../symbol-fonts.ts";
import { isOtherLanguage } from "../other-language.ts";
import { formulaOf } from "./odt-formulas.ts";
import type { OdtStyles } from "./odt-styles.ts";

/** What the parts of a document are read with. */
export interface OdtReading {
  files: Record<string, Uint8Array>;
  styles: OdtStyles;
  /** The language of the document; null where it says none. */
  language: string | null;
  /** What exports of ours say in properties of the document. */
  kept: ReadonlyMap<string, string>;
  pictures: Map<string, EnclosedFile>;
  notes: { id: string; body: XmlElement }[];
  leftOut: LeftOut[];
  paragraph: number;
}

/** What is no word of the text: declarations, and what was deleted. */
const unread = new Set([
  "annotation-end",
  "tracked-changes",
  "soft-page-break",
  "note-citation",
  "change",
  "change-start",
  "change-end",
  "script",
]);
/** What is drawn, and may have words in it (part 3, 10.3). */
export const shapes = new Set(
  "custom-shape rect line polyline polygon regular-polygon path circle ellipse connector caption measure g".split(
    " ",
  ),
);
const references = new Set(["bookmark-ref", "reference-ref", "note-ref", "sequence-ref"]);

/** Reads what stands in the paragraphs of a document: words, links, places, pictures, signs of notes. */
export class OdtWords {
  /** The text boxes that hang on the paragraph, to be set behind it. */
  boxes: XmlElement[] = [];
  private openLinks = 0;

  constructor(private readonly reading: OdtReading) {}

  read(parent: XmlElement): ElementContent[] {
    return parent.children.flatMap((child) => (typeof child === "string" ? text(child) : this.one(child)));
  }

  private one(child: XmlElement): ElementContent[] {
    const { name, attributes } = child;
    const { paragraph } = this.reading;
    if (references.has(name)) {
      const to = attributes["ref-name"];
      const words = this.read(child);
      const isPage = attributes["reference-format"] === "page";
      const follows = name === "note-ref" ? "note" : isPage ? "page" : "as-it-says";
      return to ? [element("a", { href: `#${to}`, dataReference: follows }, words, paragraph)] : words;
    }
    switch (name) {
      case "a": {
        const href = hrefOf(attributes["href"] ?? "");
        const title = attributes["title"];
        this.openLinks += 1;
        const content = this.read(child);
        this.openLinks -= 1;
        return href === ""
          ? content
          : [element("a", { href, ...(title ? { title } : {}) }, content, paragraph)];
      }
      case "span":
        return this.span(child);
      case "meta": {
        const kept = keptBy(tagIn(attributes["id"]), this.reading.kept);
        const content = this.read(child);
        return kept && content.length > 0 ? withKept(content, kept, "span", paragraph) : content;
      }
      case "s":
        return text(" ".repeat(Math.min(100, Number(attributes["c"] ?? 1) || 1)));
      case "tab":
        return text("\t");
      case "line-break":
        return [element("br", {}, [], paragraph)];
      case "bookmark":
      case "bookmark-start":
      case "reference-mark":
      case "reference-mark-start":
        return attributes["name"] ? [this.place(attributes["name"])] : [];
      case "sequence": {
        const { name: counted = "", "ref-name": place } = attributes;
        const number = element("span", { dataCounted: counted }, this.read(child), paragraph);
        return place ? [element("a", { id: place }, [], paragraph), number] : [number];
      }
      case "note":
        return this.note(child);
      case "frame":
      case "image":
        return this.frame(child);
      case "annotation": {
        const words = elements(child)
          .filter((one) => one.name === "p" || one.name === "list")
          .map(shownText)
          .join(" ");
        const author = childOf(child, "creator");
        this.tell(
          "Comments",
          `A comment${author ? ` of ${textOf(author)}` : ""}: “${words.slice(0, 200)}”`,
          "Comments have no place in a book.",
        );
        return [];
      }
      case "ruby": {
        const base = childOf(child, "ruby-base") ?? { ...child, children: [] };
        const above = childOf(child, "ruby-text");
        const [open, close] = brackets(textOf(base));
        const reading = above ? textOf(above).trim() : "";
        return [...this.read(base), ...(reading === "" ? [] : text(open + reading + close))];
      }
      default:
        if (shapes.has(name)) return this.shape(child);
        return unread.has(name) ? [] : this.read(child);
    }
  }

  /** What is drawn is not taken over; its words are, behind the paragraph, or in the link that is around it. */
  private shape(shape: XmlElement): ElementContent[] {
    for (const { attributes } of elements(childOf(shape, "event-listeners")))
      if (attributes["href"])
        this.tell(
          "Links on drawn shapes",
          `A link on a drawn shape to ${attributes["href"]}`,
          "Shapes are not taken over; the words in one are.",
          attributes["href"],
        );
    const inside = elements(shape).filter((one) => !["title", "desc", "event-listeners"].includes(one.name));
    if (shape.name === "g" || this.openLinks > 0) return this.read({ ...shape, children: inside });
    if (inside.length > 0) this.boxes.push({ ...shape, children: inside });
    return [];
  }

  private place(name: string): Element {
    const own = this.reading.kept.get(`vennet-anchor-${name}`);
    const role = this.reading.kept.get(`vennet-role-${name}`);
    const called = {
      ...(own === undefined ? {} : { dataAnchor: own }),
      ...(role === undefined ? {} : { dataRole: role }),
    };
    return element("a", { id: name, ...called }, [], this.reading.paragraph);
  }

  private span(span: XmlElement): ElementContent[] {
    const style = this.reading.styles.of(span.attributes["style-name"]);
    const { font } = style;
    const signs = (words: XmlElement["children"][number]): typeof words =>
      typeof words === "string" ? symbolsOf(font!, words) : words;
    let content = this.read(isSymbolFont(font) ? { ...span, children: span.children.map(signs) } : span);
    const wrap = (tag: string): void => {
      content = [element(tag, {}, content, this.reading.paragraph)];
    };
    if (style.bold) wrap("strong");
    if (style.italic) wrap("em");
    if (style.struck) wrap("s");
    if (style.raised) wrap(style.raised);
    if (style.underlined) wrap("u");
    if (style.smallCapitals) wrap("small-caps");
    if (style.isCode) wrap("code");
    if (style.language && isOtherLanguage(style.language, this.reading.language, textOf(span)))
      content = [element("span", { lang: style.language }, content, this.reading.paragraph)];
    return content;
  }

  private note(note: XmlElement): ElementContent[] {
    const body = childOf(note, "note-body");
    if (!body) return [];
    const id = note.attributes["id"] ?? `note-${this.reading.notes.length + 1}`;
    this.reading.notes.push({ id, body });
    return [
      element("a", { id }, [], this.reading.paragraph),
      element("note-reference", { dataNote: id }, [], this.reading.paragraph),
    ];
  }

  /** A frame: a picture, in one of the forms in which it is given, or a text box. */
  private frame(frame: XmlElement): ElementContent[] {
    const { paragraph } = this.reading;
    const name = frame.attributes["name"];
    const box = childOf(frame, "text-box");
    if (box) {
      this.boxes.push(box);
      return [];
    }
    const object = childOf(frame, "object");
    const formula = object && formulaOf(object, this.reading.files, paragraph);
    if (formula) return [formula];
    const [image] =
      frame.name === "image"
        ? [frame]
        : elements(frame).filter((one) => one.name === "image" && one.attributes["href"]);
    if (!image)
      return this.read({
        ...frame,
        children: elements(frame).filter((one) => !["title", "desc"].includes(one.name)),
      });
    const source = (image.attributes["href"] ?? "").replace(/^\.\//, "");
    this.enclose(source);
    const words = (kind: string): string =>
      childOf(frame, kind) ? textOf(childOf(frame, kind)!).trim() : "";
    const size = {
      x: 0,
      y: 0,
      width: lengthOf(frame.attributes["width"]),
      height: lengthOf(frame.attributes["height"]),
    };
    const behind: ElementContent[] = [];
    const areas = elements(childOf(frame, "image-map")).flatMap((area): FoundArea[] => {
      const href = hrefOf(area.attributes["href"] ?? "");
      const about = childOf(area, "title") ?? childOf(area, "desc");
      const alt = (about && textOf(about).trim()) || area.attributes["name"] || href;
      if (href === "") return [];
      const found = areaOfShape(area.name, (key) => area.attributes[key], size, { href, alt, title: null });
      if (!found) behind.push(...text(" "), element("a", { href }, text(alt), paragraph));
      return found ? [found] : [];
    });
    const properties = {
      src: source,
      alt: words("desc") || words("title"),
      ...(areas.length > 0 ? { dataAreas: JSON.stringify(areas) } : {}),
    };
    const picture = element("img", properties, [], paragraph);
    if (behind.length > 0)
      this.tell(
        "Areas of pictures",
        "An area of a picture whose shape is not known",
        "It is a link behind the picture now, with its words.",
      );
    return [...(name ? [element("a", { id: `${name}|graphic` }, [], paragraph)] : []), picture, ...behind];
  }

  private enclose(path: string): void {
    const bytes = this.reading.files[path];
    if (bytes && !this.reading.pictures.has(path) && isPicture(bytes))
      this.reading.pictures.set(path, { reference: path, name: path.split("/").at(-1)!, bytes });
  }

  private tell(sort: string, what: string, why: string, href?: string): void {
    const where = `paragraph ${this.reading.paragraph}`;
    this.reading.leftOut.push({ where, sort, what, why, ...(href === undefined ? {} : { href }) });
  }
}

/** The tag in the name of something that an export has wrapped; each has a number of its own behind it. */
export function tagIn(name: string | undefined): string {
  return (name ?? "").replace(/-\d+$/, "");
}

/** An address as the document means it: what is beside the document is one folder above what is in it (part 2, 3.7). */
function hrefOf(href: string): string {
  return href.replace(/^\.\.\/(?!\.\.\/)/, "").trim();
}

function text(value: string): ElementContent[] {
  return value === "" ? [] : [{ type: "text", value }];
}
