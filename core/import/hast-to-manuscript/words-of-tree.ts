import type { Element, ElementContent } from "hast";
import { toString } from "hast-util-to-string";
import type { Mark, Node } from "prosemirror-model";
import { assertDestination, readHref } from "../../destination/destination.ts";
import { DestinationError } from "../../destination/errors.ts";
import type { Destination } from "../../destination/kinds/kinds.ts";
import { topOfBook } from "../../manuscript/book-index.ts";
import { newId } from "../../manuscript/ids.ts";
import { assertHotspots, type Hotspot, type Point } from "../../manuscript/hotspot.ts";
import { schema } from "../../manuscript/schema.ts";
import type { FoundArea } from "../areas.ts";
import { namesOf } from "../hast-nodes.ts";
import { fontOfElement, isSymbolFont, symbolsOf } from "../symbol-fonts.ts";
import { clip, linkedWithoutEdges } from "./blanks.ts";
import { followsOf, frameOf, lookOf } from "./carried.ts";
import { languageMark } from "./language-of-tree.ts";
import { isDisplay, mathOfElement } from "./math-of-tree.ts";
import { marksOfStyle, marksTakenBack } from "./marks-of-style.ts";
import { withReadings } from "../readings.ts";
import { markFor, shows, silent, unformatted } from "./elements.ts";
import type { FileReading, MissingPicture } from "./file-reading.ts";

function areasIn({ properties }: Element): FoundArea[] {
  return typeof properties["dataAreas"] === "string"
    ? (JSON.parse(properties["dataAreas"]) as FoundArea[])
    : [];
}

const notBrought: MissingPicture = {
  sort: "Pictures that were not brought along",
  why: "It was not brought along.",
};

/** So many areas a picture can have. */
const mostHotspots = 500;

/** Whether an area is one that a picture can have: in shape, size and words. */
function isHotspot(hotspot: Hotspot): boolean {
  try {
    assertHotspots([hotspot]);
    return true;
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return false;
  }
}

/** How wide a picture is shown, in percent of the text’s width; null where no share is told. */
function shareOf({ properties }: Element): number | null {
  const style = /(?:^|;)\s*width\s*:\s*([\d.]+)%/i.exec(String(properties["style"] ?? ""))?.[1];
  const width = /^([\d.]+)%$/.exec(String(properties["width"] ?? ""))?.[1];
  const share = Number(properties["dataWidth"] ?? style ?? width ?? NaN);
  return share >= 5 && share <= 100 ? share : null;
}

/** An element whose words are signs of a font. */
function inSymbols(element: Element, font: string): Element {
  const own = fontOfElement(element.tagName, element.properties["style"], element.properties["face"]);
  // What has another font within it is in that.
  if (own !== null && own !== font) return element;
  const children = element.children.map((child) =>
    child.type === "text"
      ? { ...child, value: symbolsOf(font, child.value) }
      : child.type === "element"
        ? inSymbols(child, font)
        : child,
  );
  return { ...element, children };
}

const elementsUnknown = "Elements that have no place in a book";

/** Makes what stands in the words of a block: text in its marks, links, pictures, anchors, signs of notes. */
export class WordsOfTree {
  constructor(private readonly reading: FileReading) {}

  inlines(children: ElementContent[], marks: readonly Mark[], keepBlanks = false): Node[] {
    return children.flatMap((child) => this.inline(child, marks, keepBlanks));
  }

  private inline(node: ElementContent, given: readonly Mark[], keepBlanks: boolean): Node[] {
    const language = node.type === "element" ? languageMark(node) : null;
    const marks = language ? language.addToSet(given) : given;
    if (node.type === "text") {
      const text = keepBlanks ? node.value : node.value.replace(/[ \t\r\n\f]+/g, " ");
      return text === "" ? [] : [schema.text(text, marks)];
    }
    if (node.type !== "element" || silent.has(node.tagName)) {
      if (node.type === "element")
        this.reading.tell(
          node,
          elementsUnknown,
          `The element “${node.tagName}”`,
          "It has no place in a book.",
        );
      return [];
    }
    switch (node.tagName) {
      case "a":
        return this.link(node, marks, keepBlanks);
      case "img":
        return this.picture(node, marks);
      case "math":
        return this.formula(node, marks);
      case "ruby":
        return this.inlines(withReadings(node), marks, keepBlanks);
      case "br":
        return [schema.node("hard_break", null, undefined, marks)];
      case "input":
        // What one writes into is empty in a book.
        return /^(checkbox|radio)$/i.test(String(node.properties["type"]))
          ? [schema.text(node.properties["checked"] ? "☑" : "☐", marks)]
          : [];
      case "note-reference":
        return [
          schema.node(
            "note_reference",
            { note: this.reading.noteId(String(node.properties["dataNote"])) },
            undefined,
            // The sign of a note is raised by itself.
            marks.filter(({ type }) => type.name !== "superscript"),
          ),
        ];
      default:
        return this.formatted(node, marks, keepBlanks);
    }
  }

  private formula(element: Element, marks: readonly Mark[]): Node[] {
    const math = mathOfElement(element);
    if (math) return [schema.node("formula", { math, display: isDisplay(element) }, undefined, marks)];
    const words = toString(element).replace(/\s+/g, " ").trim();
    this.reading.tell(
      element,
      "Formulas",
      `A formula: “${clip(words)}”`,
      "Its letters are kept without their places.",
    );
    return words === "" ? [] : [schema.text(words, marks)];
  }

  private formatted(given: Element, marks: readonly Mark[], keepBlanks: boolean): Node[] {
    const font = fontOfElement(given.tagName, given.properties["style"], given.properties["face"]);
    const element = isSymbolFont(font) ? inSymbols(given, font) : given;
    const takenBack: readonly string[] = marksTakenBack(element);
    const kept = marks.filter(({ type }) => !takenBack.includes(type.name));
    const shown = [markFor[element.tagName], ...marksOfStyle(element)].filter(
      // A link's underline is its look.
      (name) =>
        name !== undefined &&
        !takenBack.includes(name) &&
        !(name === "underline" && schema.marks.link!.isInSet(marks)),
    );
    if (shown.length > 0 || kept.length < marks.length) {
      const all = shown.reduce<readonly Mark[]>((set, name) => schema.mark(name!).addToSet(set), kept);
      return this.inlines(element.children, all, keepBlanks);
    }
    const lost = unformatted[element.tagName];
    if (lost)
      this.reading.tell(
        element,
        lost,
        `${lost}: “${clip(toString(element))}”`,
        "The words are kept without it.",
      );
    else if (shows.has(element.tagName)) {
      this.reading.tell(
        element,
        elementsUnknown,
        `The element “${element.tagName}”`,
        "It has no place in a book; its words, if any, are kept.",
      );
    }
    return this.inlines(element.children, marks, keepBlanks);
  }

  private link(element: Element, marks: readonly Mark[], keepBlanks: boolean): Node[] {
    const anchor = this.anchorOf(element, marks);
    const href = element.properties["href"];
    if (typeof href !== "string") return [...anchor, ...this.inlines(element.children, marks, keepBlanks)];
    const words = clip(toString(element)) || href;
    const destination = this.destinationOf(element, words, href);
    if (!destination) return [...anchor, ...this.inlines(element.children, marks, keepBlanks)];
    const title = element.properties["title"];
    const id = this.reading.linkId(element);
    this.reading.linkNodes.set(id, element);
    const follows = followsOf(element);
    if (follows && destination.kind === "place") this.reading.follows.set(id, follows);
    const mark = schema.mark("link", {
      id,
      destination,
      description: typeof title === "string" && title !== "" ? title : null,
      asText: element.properties["dataLook"] === "text",
      look: lookOf(element),
      newWindow:
        element.properties["target"] === "_blank" || element.properties["dataNewWindow"] !== undefined,
    });
    const content = this.inlines(
      element.children,
      mark.addToSet(marks.filter(({ type }) => type.name !== "underline")),
      keepBlanks,
    );
    const covers = content.some(
      ({ isText, type: { name } }) => isText || name === "picture" || name === "formula",
    );
    if (!covers)
      this.reading.tell(
        element,
        "Links without words",
        `A link without words to ${clip(href)}`,
        "A link needs words or a picture to stand on.",
        href,
      );
    // Between the parts of a link, as Vennet writes one with a note in it, blanks are its own.
    const isPart = element.properties["dataLink"] !== undefined;
    return [...anchor, ...(isPart || keepBlanks ? content : linkedWithoutEdges(content, mark))];
  }

  /** Where a link leads; null, and told, where a book can hold no such link. */
  private destinationOf(element: Element, words: string, href: string): Destination | null {
    const companion = this.reading.options.companionFor(href);
    const at = /#([^\s#]+)$/.exec(href)?.[1];
    if (companion) return { kind: "file", file: companion, ...(at ? { at } : {}) };
    let destination: Destination;
    try {
      destination = readHref(href, this.reading.options.baseAddress);
      if (destination.kind === "place") return this.reading.places.named(destination.target);
      assertDestination(destination);
    } catch (error) {
      if (!(error instanceof DestinationError)) throw error;
      this.reading.tell(
        element,
        "Links that a book cannot hold",
        `The link “${words}” to ${clip(href)}`,
        `${error.message} Its words are kept.`,
        href,
      );
      return null;
    }
    if (destination.kind === "file" && "path" in destination)
      this.reading.tell(
        element,
        "Links to files that were not brought along",
        `The link “${words}” to the file ${clip(href)}`,
        "It is kept, but the file was not brought along. Give an address from which relative links start, or change it to a web address.",
        href,
      );
    return destination;
  }

  private anchorOf(element: Element, marks: readonly Mark[]): Node[] {
    const [name, ...others] = namesOf(element).filter(
      (one) => one !== topOfBook && !this.reading.places.has(one),
    );
    if (name === undefined) return [];
    const id = newId();
    // hast-util-raw may have put this prefix before names to keep them apart from others.
    for (const one of [name, ...others]) this.reading.places.set(one.replace(/^user-content-/, ""), id);
    // Within a link it is a part of that, which would be two otherwise.
    const own = element.properties["dataAnchor"];
    if (typeof own === "string") this.reading.ownAnchors.add(id);
    const shown = typeof own === "string" ? own : name.replace(/^page-\d+-/, "");
    return [schema.node("anchor", { id, name: shown }, undefined, marks)];
  }

  private picture(element: Element, marks: readonly Mark[]): Node[] {
    const source = typeof element.properties["src"] === "string" ? element.properties["src"] : "";
    const alt = typeof element.properties["alt"] === "string" ? element.properties["alt"] : "";
    const file = source === "" ? null : this.reading.options.pictureFor(source);
    if (file === null) {
      const { sort, why } = this.reading.options.missing?.(source) ?? notBrought;
      const instead = alt ? " Its text alternative stands in its place." : "";
      this.reading.tell(
        element,
        sort,
        `The picture ${clip(source) || "without a source"}`,
        `${why}${instead}`,
      );
    }
    const areas = areasIn(element);
    /** Areas that no picture can have stand behind it as links. */
    const behind = file === null ? [...areas] : [];
    const hotspots = file === null ? [] : this.hotspots(element, source, areas, behind);
    const { role, dataDecorative } = element.properties;
    const decorative = dataDecorative !== undefined || role === "presentation" || role === "none";
    const attrs = { file, alt, decorative, source: source || null, width: shareOf(element), hotspots };
    const links = behind.flatMap((area) => this.areaBehind(element, area));
    return [schema.node("picture", attrs, undefined, marks), ...links];
  }

  /** The areas of a picture that came along. */
  private hotspots(
    element: Element,
    source: string,
    areas: readonly FoundArea[],
    behind: FoundArea[],
  ): Hotspot[] {
    const given = [Number(element.properties["width"]), Number(element.properties["height"])];
    const [width, height] = given.every((size) => size > 0)
      ? given
      : Object.values(this.reading.options.pictureSize(source) ?? { width: NaN, height: NaN });
    return areas.flatMap((area, i): Hotspot[] => {
      const { shape, points, unit, href, alt, title, frame } = area;
      const destination = this.destinationOf(element, alt, href);
      if (!destination) return [];
      const share = (value: number, whole: number): number => {
        const at = unit === "share" ? value : value / whole;
        return Math.round(Math.min(1, Math.max(0, Number.isFinite(at) ? at : 0)) * 10_000) / 10_000;
      };
      const id = newId();
      const hotspot: Hotspot = {
        id,
        shape,
        points: points.map(([x, y]): Point => [share(x, width!), share(y, height!)]),
        destination,
        alt,
        description: title,
        frame: frameOf(frame),
      };
      if (i >= mostHotspots || !isHotspot(hotspot)) {
        behind.push(area);
        return [];
      }
      this.reading.linkNodes.set(id, element);
      return [hotspot];
    });
  }

  /** An area of a picture that did not come along: a link in its place. */
  private areaBehind(element: Element, { href, alt, title }: FoundArea): Node[] {
    const properties = { href, ...(title === null ? {} : { title }) };
    const link: Element = { ...element, tagName: "a", properties, children: [{ type: "text", value: alt }] };
    return [schema.text(" "), ...this.link(link, [], false)];
  }
}
