import { Schema, type Mark, type Node } from "prosemirror-model";
import { assertDestination, writeDestination } from "../destination/destination.ts";
import * as checks from "./attribute-checks.ts";
import { languageTag } from "./language.ts";
import { linkAttrs, type LinkAttrs } from "./attributes.ts";
import {
  attrsFromDom,
  codeLanguageFromDom,
  doneFromDom,
  formulaFromDom,
  hotspotsFromDom,
  lineAlignFromDom,
  linkFromDom,
  linkFromHref,
  setOffFromDom,
} from "./from-dom.ts";
import { wordMarkSpecs } from "./word-mark-specs.ts";
import { assertHotspots } from "./hotspot.ts";
import { assertOwnLook, lookVariables } from "./looks.ts";
import { mathToDom } from "./math-dom.ts";
import { assertMath, lettersOfMath, type MathElement } from "./math.ts";
import { setOffKinds } from "./set-off.ts";
import { tableSpecs } from "./table-specs.ts";

const idAttr = { validate: checks.checkId };
/**
 * The one document schema. A document is one chapter: its title, its blocks, and its notes, each of
 * which is called by `note_reference` nodes in the text.
 *
 * `validate` and `check()` make sure that no document with an unsafe destination is ever accepted,
 * whichever way it comes in.
 */
export const schema = new Schema({
  nodes: {
    doc: { content: "title block* note*" },
    title: {
      content: "inline*",
      defining: true,
      isolating: true,
      // ProseMirror must be able to make a title by itself; the editor gives it an id of its own at once.
      attrs: { id: { default: "unset", validate: checks.checkId } },
      parseDOM: [{ tag: "h1[data-title]", getAttrs: (dom) => ({ id: (dom as HTMLElement).id }) }],
      toDOM: (node) => ["h1", { id: node.attrs["id"] as string, "data-title": "" }, 0],
    },
    paragraph: {
      content: "inline*",
      group: "block",
      attrs: { align: { default: null, validate: checks.checkLineAlign } },
      parseDOM: [{ tag: "p", getAttrs: (dom) => ({ align: lineAlignFromDom(dom as HTMLElement) }) }],
      toDOM: (node) => [
        "p",
        node.attrs["align"] ? { style: `text-align: ${node.attrs["align"] as string}` } : {},
        0,
      ],
    },
    heading: {
      content: "inline*",
      group: "block",
      defining: true,
      attrs: { id: idAttr, level: { validate: checks.checkLevel } },
      // The chapter's title is the page's h1, so a heading of level n is an h(n+1).
      parseDOM: [1, 2, 3, 4, 5, 6].map((n) => ({
        tag: `h${n}`,
        getAttrs: (dom: HTMLElement) => ({
          id: /^[a-z][a-z0-9]{11}$/.test(dom.id) ? dom.id : "unset",
          level: Math.min(4, Math.max(1, n - 1)),
        }),
      })),
      toDOM: (node) => [`h${(node.attrs["level"] as number) + 1}`, { id: node.attrs["id"] as string }, 0],
    },
    // What is set off from the text around it: a quotation, or one of the other kinds.
    blockquote: {
      content: "block+",
      group: "block",
      defining: true,
      attrs: { kind: { default: "quotation", validate: checks.oneOf(...setOffKinds) } },
      parseDOM: [{ tag: "blockquote", getAttrs: (dom) => ({ kind: setOffFromDom(dom as HTMLElement) }) }],
      toDOM: (node) => ["blockquote", { "data-part": node.attrs["kind"] as string }, 0],
    },
    code_block: {
      content: "text*",
      group: "block",
      code: true,
      defining: true,
      // A link inside a listing is still a link.
      marks: "link",
      attrs: { language: { default: null, validate: checks.checkLanguage } },
      parseDOM: [
        {
          tag: "pre",
          preserveWhitespace: "full",
          getAttrs: (dom) => ({ language: codeLanguageFromDom(dom as HTMLElement) }),
        },
      ],
      toDOM: ({ attrs: { language } }) => [
        "pre",
        language === null ? {} : { "data-language": language as string },
        ["code", 0],
      ],
    },
    bullet_list: {
      content: "list_item+",
      group: "block",
      parseDOM: [{ tag: "ul" }],
      toDOM: () => ["ul", 0],
    },
    ordered_list: {
      content: "list_item+",
      group: "block",
      attrs: { start: { default: 1, validate: checks.checkStart } },
      parseDOM: [
        {
          tag: "ol",
          getAttrs: (dom) => ({ start: Number((dom as HTMLElement).getAttribute("start") ?? 1) }),
        },
      ],
      toDOM: (node) => ["ol", { start: String(node.attrs["start"]) }, 0],
    },
    // `done` is null for what is no task.
    list_item: {
      content: "block+",
      defining: true,
      attrs: { done: { default: null, validate: "boolean|null" } },
      parseDOM: [{ tag: "li", getAttrs: (dom) => ({ done: doneFromDom(dom as HTMLElement) }) }],
      toDOM: ({ attrs: { done } }) => ["li", done === null ? {} : { "data-done": String(done) }, 0],
    },
    definition_list: {
      content: "(definition_term | definition)+",
      group: "block",
      parseDOM: [{ tag: "dl" }],
      toDOM: () => ["dl", 0],
    },
    definition_term: {
      content: "inline*",
      defining: true,
      parseDOM: [{ tag: "dt" }],
      toDOM: () => ["dt", 0],
    },
    definition: {
      content: "block+",
      defining: true,
      parseDOM: [{ tag: "dd" }],
      toDOM: () => ["dd", 0],
    },
    ...tableSpecs,
    page_break: {
      group: "block",
      parseDOM: [{ tag: "div[data-part=page-break]" }],
      toDOM: () => ["div", { "data-part": "page-break" }],
    },
    section_break: {
      group: "block",
      parseDOM: [{ tag: "hr" }],
      toDOM: () => ["hr"],
    },
    note: {
      content: "block+",
      defining: true,
      isolating: true,
      attrs: { id: idAttr },
      parseDOM: [
        { tag: "aside[data-note]", getAttrs: (dom) => ({ id: (dom as HTMLElement).dataset["note"] }) },
      ],
      toDOM: (node) => ["aside", { "data-note": node.attrs["id"] as string }, 0],
    },
    // Stands after its picture, or beside its table.
    caption: {
      content: "inline*",
      group: "block",
      defining: true,
      attrs: { id: idAttr, of: { default: "figure", validate: checks.oneOf("figure", "table") } },
      parseDOM: [
        {
          tag: "figcaption[data-of]",
          getAttrs: (dom) => ({ id: (dom as HTMLElement).id, of: (dom as HTMLElement).dataset["of"] }),
        },
      ],
      toDOM: (node) => ["figcaption", { id: node.attrs["id"] as string, "data-of": node.attrs["of"] }, 0],
    },
    // To whom a picture or what stands above belongs.
    credit: {
      content: "inline*",
      group: "block",
      defining: true,
      parseDOM: [{ tag: "p[data-part=credit]", priority: 60 }],
      toDOM: () => ["p", { "data-part": "credit" }, 0],
    },
    signposts: {
      group: "block",
      atom: true,
      attrs: {
        id: idAttr,
        of: { validate: checks.oneOf("contents", "questions", "figures", "tables", "anchors") },
        scope: { default: "chapter", validate: checks.oneOf("book", "chapter", "section") },
        section: { default: null, validate: "string|null" },
        depth: { default: 1, validate: checks.checkDepth },
        anchors: { default: [], validate: checks.checkAnchors },
        heading: { default: "", validate: "string" },
        returnWords: { default: null, validate: "string|null" },
      },
      parseDOM: [{ tag: "nav[data-signposts]", getAttrs: (dom) => attrsFromDom(dom as HTMLElement) }],
      toDOM: (node) => ["nav", { "data-signposts": "", "data-attrs": JSON.stringify(node.attrs) }],
    },
    text: { group: "inline" },
    cross_reference: {
      inline: true,
      group: "inline",
      atom: true,
      attrs: {
        id: idAttr,
        target: idAttr,
        form: {
          default: "text",
          validate: checks.oneOf("text", "number", "page", "page-and-text", "above-or-below"),
        },
        fallback: { default: "text", validate: checks.oneOf("text", "number") },
      },
      parseDOM: [{ tag: "span[data-reference]", getAttrs: (dom) => attrsFromDom(dom as HTMLElement) }],
      toDOM: (node) => ["span", { "data-reference": "", "data-attrs": JSON.stringify(node.attrs) }],
    },
    formula: {
      inline: true,
      group: "inline",
      atom: true,
      attrs: { math: { validate: assertMath }, display: { default: false, validate: "boolean" } },
      parseDOM: [{ tag: "span[data-formula]", getAttrs: (dom) => formulaFromDom(dom as HTMLElement) }],
      toDOM: ({ attrs }) => [
        "span",
        { "data-formula": "", "data-attrs": JSON.stringify(attrs) },
        mathToDom(attrs["math"] as MathElement, attrs["display"] as boolean),
      ],
      leafText: (node) => lettersOfMath(node.attrs["math"] as MathElement),
    },
    hard_break: {
      inline: true,
      group: "inline",
      selectable: false,
      parseDOM: [{ tag: "br" }],
      toDOM: () => ["br"],
    },
    picture: {
      inline: true,
      group: "inline",
      draggable: true,
      attrs: {
        file: { default: null, validate: checks.checkFileId },
        alt: { default: "", validate: "string" },
        decorative: { default: false, validate: "boolean" },
        source: { default: null, validate: checks.checkSource },
        width: { default: null, validate: checks.checkWidth },
        hotspots: { default: [], validate: assertHotspots },
      },
      parseDOM: [
        {
          tag: "img[data-file]",
          getAttrs: (dom) => ({
            file: (dom as HTMLElement).dataset["file"] || null,
            alt: (dom as HTMLElement).getAttribute("alt") ?? "",
            decorative: (dom as HTMLElement).hasAttribute("data-decorative"),
            source: (dom as HTMLElement).dataset["source"] || null,
            width: Number((dom as HTMLElement).dataset["width"]) || null,
            hotspots: hotspotsFromDom(dom as HTMLElement),
          }),
        },
      ],
      toDOM: (node) => [
        "img",
        {
          alt: node.attrs["alt"] as string,
          "data-file": (node.attrs["file"] as string | null) ?? "",
          "data-source": (node.attrs["source"] as string | null) ?? "",
          "data-width": String((node.attrs["width"] as number | null) ?? ""),
          "data-hotspots": JSON.stringify(node.attrs["hotspots"]),
          ...(node.attrs["decorative"] ? { "data-decorative": "" } : {}),
        },
      ],
    },
    anchor: {
      inline: true,
      group: "inline",
      atom: true,
      attrs: { id: idAttr, name: { default: "", validate: "string" } },
      parseDOM: [
        {
          tag: "span[data-anchor]",
          getAttrs: (dom) => ({ id: (dom as HTMLElement).id, name: (dom as HTMLElement).dataset["anchor"] }),
        },
      ],
      toDOM: (node) => [
        "span",
        { id: node.attrs["id"] as string, "data-anchor": node.attrs["name"] as string },
      ],
    },
    note_reference: {
      inline: true,
      group: "inline",
      atom: true,
      attrs: { note: idAttr },
      parseDOM: [
        {
          tag: "sup[data-note]",
          // Before the mark for what is raised.
          priority: 60,
          getAttrs: (dom) => ({ note: (dom as HTMLElement).dataset["note"] }),
        },
      ],
      toDOM: (node) => ["sup", { "data-note": node.attrs["note"] as string }],
    },
  },
  marks: {
    link: {
      attrs: {
        id: idAttr,
        destination: { validate: assertDestination },
        description: {
          default: null,
          validate: "string|null",
        },
        asText: { default: false, validate: "boolean" },
        look: {
          default: null,
          validate: (value: unknown) => {
            if (value !== null) assertOwnLook(value);
          },
        },
        newWindow: { default: false, validate: "boolean" },
      },
      inclusive: false,
      parseDOM: [
        {
          tag: "a[data-link]",
          // Only what the editor itself wrote to the clipboard carries this attribute.
          getAttrs: (dom) => linkFromDom(dom as HTMLElement),
        },
        {
          tag: "a[href]",
          // From anywhere else: only addresses; of other links the words alone are taken.
          getAttrs: (dom) => linkFromHref(dom as HTMLElement),
        },
      ],
      toDOM: (mark) => {
        const attrs = linkAttrs(mark);
        return [
          "a",
          {
            href: writeDestination(attrs.destination),
            "data-link": attrs.id,
            "data-kind": attrs.destination.kind,
            "data-destination": JSON.stringify(attrs.destination),
            "data-description": attrs.description ?? "",
            ...(attrs.asText ? { "data-as-text": "" } : {}),
            ...(attrs.look
              ? { "data-look": JSON.stringify(attrs.look), style: lookVariables(attrs.look) }
              : {}),
            ...(attrs.newWindow ? { "data-new-window": "" } : {}),
          },
          0,
        ];
      },
    },
    ...wordMarkSpecs,
    // Words in another language than the book's (WCAG 2.2, SC 3.1.2).
    language: {
      attrs: { tag: { validate: checks.checkLanguageTag } },
      parseDOM: [
        {
          tag: "span[lang]",
          getAttrs: (dom) => {
            const tag = languageTag((dom as HTMLElement).lang);
            return tag === null ? false : { tag };
          },
        },
      ],
      toDOM: (mark) => ["span", { lang: mark.attrs["tag"] as string }, 0],
    },
    // Words that look like an address and that the author wants to stay words.
    plain: {
      inclusive: false,
      parseDOM: [{ tag: "span[data-plain]" }],
      toDOM: () => ["span", { "data-plain": "" }, 0],
    },
  },
});

/** A link's mark. */
export function linkMark({ id, destination, description, asText, look, newWindow }: LinkAttrs): Mark {
  return schema.mark("link", { id, destination, description, asText, look, newWindow });
}

/** The link on an inline node, or null. A cross-reference is a link itself and carries no other. */
export function linkOn(node: Node): LinkAttrs | null {
  if (node.type.name === "cross_reference") return null;
  const mark = schema.marks.link!.isInSet(node.marks);
  return mark ? linkAttrs(mark) : null;
}
