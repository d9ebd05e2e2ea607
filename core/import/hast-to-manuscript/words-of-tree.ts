import type { Element, ElementContent } from "hast";
import { toString } from "hast-util-to-string";
import type { Mark, Node } from "prosemirror-model";
import { readHref } from "../../destination/destination.ts";
import { DestinationError } from "../../destination/errors.ts";
import type { Destination } from "../../destination/kinds/kinds.ts";
import { newId } from "../../manuscript/ids.ts";
import { schema } from "../../manuscript/schema.ts";
import { clip } from "./blanks.ts";
import { languageMark } from "./language-of-tree.ts";
import { marksOfStyle } from "./marks-of-style.ts";
import { markFor, shows, silent, unformatted } from "./elements.ts";
import type { FileReading } from "./file-reading.ts";

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
        this.reading.tell(node, `The element “${node.tagName}”`, "It has no place in a book.");
      return [];
    }
    switch (node.tagName) {
      case "a":
        return this.link(node, marks, keepBlanks);
      case "img":
        return this.picture(node, marks);
      case "br":
        return [schema.node("hard_break", null, undefined, marks)];
      case "input":
        return [schema.text(node.properties["checked"] ? "☑" : "☐", marks)];
      case "note-reference":
        return [
          schema.node(
            "note_reference",
            { note: this.reading.noteId(String(node.properties["dataNote"])) },
            undefined,
            marks,
          ),
        ];
      default:
        return this.formatted(node, marks, keepBlanks);
    }
  }

  private formatted(element: Element, marks: readonly Mark[], keepBlanks: boolean): Node[] {
    const shown = [markFor[element.tagName], ...marksOfStyle(element)].filter(
      // A link's underline is its look.
      (name) => name !== undefined && !(name === "underline" && schema.marks.link!.isInSet(marks)),
    );
    if (shown.length > 0) {
      const all = shown.reduce((set, name) => schema.mark(name!).addToSet(set), marks);
      return this.inlines(element.children, all, keepBlanks);
    }
    const lost = unformatted[element.tagName];
    if (lost)
      this.reading.tell(element, `${lost}: “${clip(toString(element))}”`, "The words are kept without it.");
    else if (shows.has(element.tagName)) {
      this.reading.tell(
        element,
        `The element “${element.tagName}”`,
        "It has no place in a book; its words, if any, are kept.",
      );
    }
    return this.inlines(element.children, marks, keepBlanks);
  }

  private link(element: Element, marks: readonly Mark[], keepBlanks: boolean): Node[] {
    const anchor = this.anchorOf(element);
    const href = element.properties["href"];
    if (typeof href !== "string") return [...anchor, ...this.inlines(element.children, marks, keepBlanks)];
    const words = clip(toString(element)) || href;
    let destination: Destination;
    try {
      const companion = this.reading.options.companionFor(href);
      destination = companion
        ? { kind: "file", file: companion }
        : readHref(href, this.reading.options.baseAddress);
    } catch (error) {
      if (!(error instanceof DestinationError)) throw error;
      this.reading.tell(
        element,
        `The link “${words}” to ${clip(href)}`,
        `${error.message} Its words are kept.`,
      );
      return [...anchor, ...this.inlines(element.children, marks, keepBlanks)];
    }
    const title = element.properties["title"];
    const id = newId();
    this.reading.linkNodes.set(id, element);
    const mark = schema.mark("link", {
      id,
      destination,
      description: typeof title === "string" && title !== "" ? title : null,
    });
    const content = this.inlines(
      element.children,
      mark.addToSet(marks.filter(({ type }) => type.name !== "underline")),
      keepBlanks,
    );
    const covers = content.some((node) => node.isText || node.type.name === "picture");
    if (!covers)
      this.reading.tell(
        element,
        `A link without words to ${clip(href)}`,
        "A link needs words or a picture to stand on.",
      );
    if (destination.kind === "file" && "path" in destination) {
      this.reading.tell(
        element,
        `The link “${words}” to the file ${clip(href)}`,
        "It is kept, but the file was not brought along. Give an address from which relative links start, or change it to a web address.",
      );
    }
    return [...anchor, ...content];
  }

  private anchorOf(element: Element): Node[] {
    const name = element.properties["id"] ?? element.properties["name"];
    if (typeof name !== "string" || name === "" || this.reading.places.has(name)) return [];
    const id = newId();
    // hast-util-raw may have put this prefix before names to keep them apart from others.
    this.reading.places.set(name.replace(/^user-content-/, ""), id);
    return [schema.node("anchor", { id, name })];
  }

  private picture(element: Element, marks: readonly Mark[]): Node[] {
    const source = typeof element.properties["src"] === "string" ? element.properties["src"] : "";
    const alt = typeof element.properties["alt"] === "string" ? element.properties["alt"] : "";
    const file = source === "" ? null : this.reading.options.pictureFor(source);
    if (file === null) {
      this.reading.tell(
        element,
        `The picture ${clip(source) || "without a source"}`,
        alt
          ? "It was not brought along; its text alternative stands in its place."
          : "It was not brought along.",
      );
    }
    return [
      schema.node("picture", { file, alt, decorative: false, source: source || null }, undefined, marks),
    ];
  }
}
