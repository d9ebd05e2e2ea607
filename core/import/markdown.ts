import GithubSlugger from "github-slugger";
import type { Element, ElementContent, Nodes, Root as HastRoot, RootContent } from "hast";
import { raw } from "hast-util-raw";
import { toString } from "hast-util-to-string";
import { fromMarkdown } from "mdast-util-from-markdown";
import { gfmFromMarkdown } from "mdast-util-gfm";
import { toHast } from "mdast-util-to-hast";
import { VFile } from "vfile";
import { gfm } from "micromark-extension-gfm";
import type { Mark, Node } from "prosemirror-model";
import { readHref, type Destination } from "../destination/destination.ts";
import { DestinationError } from "../destination/errors.ts";
import { topOfBook } from "../manuscript/book-index.ts";
import { newId } from "../manuscript/ids.ts";
import { schema } from "../manuscript/schema.ts";

/** Something of the file that could not be taken over as it was, and what became of it. */
export interface LeftOut {
  /** The line of the file, counted from 1; null where it cannot be told. */
  line: number | null;
  what: string;
  why: string;
}

export interface ImportOptions {
  /** The title of the chapter for text before the first level-1 heading. */
  fallbackTitle: string;
  /** An absolute web address from which relative links start; null keeps them as files. */
  baseAddress: string | null;
  /** The id of the stored file for a picture's source, or null where it was not brought along. */
  pictureFor: (source: string) => string | null;
}

export interface ImportedManuscript {
  /** The words of the first level-1 heading, or the fallback title. */
  title: string;
  /** One valid document a chapter. */
  chapters: Node[];
  leftOut: LeftOut[];
}

/**
 * Reads a Markdown manuscript (CommonMark 0.31, GFM tables, footnotes and autolinks, HTML inside it).
 * A level-1 heading begins a chapter. Every link arrives; whatever has no place in a manuscript keeps its
 * words and is listed.
 */
export function importMarkdown(markdown: string, options: ImportOptions): ImportedManuscript {
  const mdast = fromMarkdown(markdown.replace(/^\uFEFF/, ""), {
    extensions: [gfm()],
    mdastExtensions: [gfmFromMarkdown()],
  });
  const hast = raw(
    toHast(mdast, {
      allowDangerousHtml: true,
      handlers: {
        // Notes are kept as notes, not as the list of links that toHast would make of them.
        footnoteReference: (_state, node: { identifier: string }) => ({
          type: "element",
          tagName: "note-reference",
          properties: { dataNote: node.identifier },
          children: [],
        }),
        footnoteDefinition: (state, node) => ({
          type: "element",
          tagName: "note-body",
          properties: { dataNote: (node as { identifier: string }).identifier },
          children: state.all(node as Parameters<typeof state.all>[0]),
        }),
      },
    }) as HastRoot,
    // With the file at hand, raw keeps the lines on which things stand.
    { file: new VFile(markdown) },
  ) as HastRoot;
  return new MarkdownReader(options).read(hast);
}

/** Elements that only wrap blocks: their content is taken as if they were not there. */
const wrappers = new Set([
  "div",
  "section",
  "article",
  "main",
  "header",
  "footer",
  "center",
  "details",
  "summary",
  "figure",
  "figcaption",
  "dl",
  "dt",
  "dd",
  "aside",
  "nav",
  "form",
  "address",
]);
const blocks = new Set([
  "p",
  "h1",
  "h2",
  "h3",
  "h4",
  "h5",
  "h6",
  "ul",
  "ol",
  "blockquote",
  "pre",
  "table",
  "hr",
  "note-body",
  ...wrappers,
]);
const silent = new Set([
  "script",
  "style",
  "template",
  "head",
  "title",
  "meta",
  "link",
  "source",
  "noscript",
]);
/** Formatting that the manuscript has no mark for; the words stay. */
const unformatted: Record<string, string> = {
  del: "Struck-out text",
  s: "Struck-out text",
  sup: "Raised text",
  sub: "Lowered text",
  u: "Underlining",
  mark: "Highlighting",
};
const markFor: Record<string, string> = {
  strong: "strong",
  b: "strong",
  em: "emphasis",
  i: "emphasis",
  code: "code",
  kbd: "code",
  samp: "code",
  tt: "code",
  var: "emphasis",
  cite: "emphasis",
  dfn: "emphasis",
};

interface Draft {
  title: Node;
  blocks: Node[];
}

class MarkdownReader {
  private readonly leftOut: LeftOut[] = [];
  private readonly slugger = new GithubSlugger();
  /** Fragment names as the file's own links use them, with the ids that the manuscript gives. */
  private readonly places = new Map<string, string>();
  private readonly noteIds = new Map<string, string>();
  private readonly noteBodies = new Map<string, Node[]>();
  private readonly linkLines = new Map<string, number | null>();
  private readonly drafts: Draft[] = [];
  private firstHeading = "";

  constructor(private readonly options: ImportOptions) {}

  read(root: HastRoot): ImportedManuscript {
    this.chapterBlocks(root.children);
    if (this.drafts.length === 0) this.begin([schema.text(this.options.fallbackTitle)]);
    const chapters = this.drafts.map((draft) => this.finish(draft));
    this.listDeadPlaces(chapters);
    return {
      title: this.firstHeading || this.options.fallbackTitle,
      chapters,
      leftOut: this.leftOut.sort((a, b) => (a.line ?? 0) - (b.line ?? 0)),
    };
  }

  // ---- chapters

  private chapterBlocks(children: RootContent[]): void {
    let loose: ElementContent[] = [];
    const flush = (): void => {
      const paragraph = this.paragraph(loose);
      loose = [];
      if (paragraph) this.current().blocks.push(paragraph);
    };
    for (const child of children) {
      if (child.type === "element" && child.tagName === "h1") {
        flush();
        const id = this.headingId(child);
        const title = this.headingWords(child, id);
        this.begin(title, id);
        this.firstHeading ||= toString(child).trim();
      } else if (child.type === "element" && wrappers.has(child.tagName) && child.tagName !== "figure") {
        flush();
        this.chapterBlocks(child.children);
      } else if (child.type === "element" && blocks.has(child.tagName)) {
        flush();
        const made = this.block(child);
        if (made.length > 0) this.current().blocks.push(...made);
      } else if (child.type === "element" || child.type === "text") {
        loose.push(child);
      }
    }
    flush();
  }

  private begin(title: Node[], id = newId()): void {
    this.drafts.push({ title: schema.node("title", { id }, title), blocks: [] });
  }

  private current(): Draft {
    if (this.drafts.length === 0) this.begin([schema.text(this.options.fallbackTitle)]);
    return this.drafts.at(-1)!;
  }

  private finish(draft: Draft): Node {
    const content = draft.blocks.length > 0 ? draft.blocks : [schema.node("paragraph")];
    const called = new Set<string>();
    const collect = (node: Node): void => {
      if (node.type.name === "note_reference") called.add(node.attrs["note"] as string);
    };
    for (const block of content) {
      collect(block);
      block.descendants(collect);
    }
    draft.title.descendants(collect);
    const notes: Node[] = [];
    // A note may itself refer to a note, so the set grows while it is walked.
    for (const id of called) {
      const name = [...this.noteIds].find(([, noteId]) => noteId === id)![0];
      const body = this.noteBodies.get(name);
      if (!body) continue;
      this.noteBodies.delete(name);
      const note = schema.node("note", { id }, body);
      note.descendants(collect);
      notes.push(note);
    }
    if (draft === this.drafts.at(-1)) {
      for (const [name, body] of this.noteBodies)
        notes.push(schema.node("note", { id: this.noteId(name) }, body));
    }
    const resolved = [draft.title, ...content, ...notes].map((node) => this.resolvePlaces(node));
    const doc = schema.node("doc", null, resolved);
    doc.check();
    return doc;
  }

  // ---- blocks

  private blocksOf(children: ElementContent[]): Node[] {
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
        out.push(...this.block(child));
      } else loose.push(child);
    }
    flush();
    return out;
  }

  private atLeastOne(nodes: Node[]): Node[] {
    return nodes.length > 0 ? nodes : [schema.node("paragraph")];
  }

  private block(element: Element): Node[] {
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
        return this.list("ordered_list", { start: Number(element.properties["start"] ?? 1) || 1 }, element);
      case "blockquote":
        return [schema.node("blockquote", null, this.atLeastOne(this.blocksOf(children)))];
      case "pre":
        return [this.listing(element)];
      case "table":
        return this.table(element);
      case "hr":
        return [schema.node("section_break")];
      case "note-body": {
        this.noteBodies.set(String(element.properties["dataNote"]), this.atLeastOne(this.blocksOf(children)));
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

  private paragraph(children: ElementContent[]): Node | null {
    if (children.every((child) => child.type === "text" && child.value.trim() === "")) return null;
    const nodes = trimBlanks(this.inlines(children, []));
    return nodes.length > 0 ? schema.node("paragraph", null, nodes) : null;
  }

  private heading(element: Element): Node {
    const depth = Number(element.tagName.slice(1));
    const level = Math.min(4, Math.max(1, depth - 1));
    if (depth > 5 && toString(element).trim() !== "") {
      this.tell(
        element,
        `The heading “${clip(toString(element))}” of level ${depth}`,
        "It became a heading of level 4, the lowest.",
      );
    }
    const id = this.headingId(element);
    return schema.node("heading", { id, level }, this.headingWords(element, id));
  }

  /** The words of a heading. Anchors inside it are the heading itself, which is a landing place already. */
  private headingWords(element: Element, id: string): Node[] {
    const words = this.inlines(element.children, []);
    for (const node of words)
      if (node.type.name === "anchor") this.places.set(node.attrs["name"] as string, id);
    return trimBlanks(words.filter((node) => node.type.name !== "anchor"));
  }

  private headingId(element: Element): string {
    const id = newId();
    const slug = this.slugger.slug(toString(element));
    if (!this.places.has(slug)) this.places.set(slug, id);
    const own = element.properties["id"];
    if (typeof own === "string" && !this.places.has(own)) this.places.set(own, id);
    return id;
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
      ? (className.map(String).find((name) => name.startsWith("language-")) ?? "").replace("language-", "")
      : "";
    const allowed = this.inlines(element.children, [], true).filter((node) => node.isText);
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
    const id = newId();
    const name = element.properties["id"];
    if (typeof name === "string" && name !== "" && !this.places.has(name)) this.places.set(name, id);
    const words = trimBlanks(this.inlines(element.children, []));
    return schema.node("caption", { id, of }, words);
  }

  private cell(cell: Element): Node {
    const span = (name: string): number => Math.min(100, Math.max(1, Number(cell.properties[name]) || 1));
    const align = cell.properties["align"];
    const attrs = {
      colspan: span("colSpan"),
      rowspan: span("rowSpan"),
      align: align === "left" || align === "center" || align === "right" ? align : null,
    };
    const type = cell.tagName === "th" ? "table_header" : "table_cell";
    return schema.node(type, attrs, this.atLeastOne(this.blocksOf(cell.children)));
  }

  // ---- words

  private inlines(children: ElementContent[], marks: readonly Mark[], keepBlanks = false): Node[] {
    return children.flatMap((child) => this.inline(child, marks, keepBlanks));
  }

  private inline(node: ElementContent, marks: readonly Mark[], keepBlanks: boolean): Node[] {
    if (node.type === "text") {
      const text = keepBlanks ? node.value : node.value.replace(/[ \t\r\n\f]+/g, " ");
      return text === "" ? [] : [schema.text(text, marks)];
    }
    if (node.type !== "element" || silent.has(node.tagName)) {
      if (node.type === "element")
        this.tell(node, `The element “${node.tagName}”`, "It has no place in a book.");
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
            { note: this.noteId(String(node.properties["dataNote"])) },
            undefined,
            marks,
          ),
        ];
      default:
        return this.formatted(node, marks, keepBlanks);
    }
  }

  private formatted(element: Element, marks: readonly Mark[], keepBlanks: boolean): Node[] {
    const name = markFor[element.tagName];
    if (name) return this.inlines(element.children, schema.mark(name).addToSet(marks), keepBlanks);
    const lost = unformatted[element.tagName];
    if (lost) this.tell(element, `${lost}: “${clip(toString(element))}”`, "The words are kept without it.");
    else if (
      ["iframe", "video", "audio", "object", "embed", "svg", "math", "canvas"].includes(element.tagName)
    ) {
      this.tell(
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
      destination = readHref(href, this.options.baseAddress);
    } catch (error) {
      if (!(error instanceof DestinationError)) throw error;
      this.tell(element, `The link “${words}” to ${clip(href)}`, `${error.message} Its words are kept.`);
      return [...anchor, ...this.inlines(element.children, marks, keepBlanks)];
    }
    const title = element.properties["title"];
    const id = newId();
    this.linkLines.set(id, lineOf(element));
    const mark = schema.mark("link", {
      id,
      destination,
      description: typeof title === "string" && title !== "" ? title : null,
    });
    const content = this.inlines(element.children, mark.addToSet(marks), keepBlanks);
    const covers = content.some((node) => node.isText || node.type.name === "picture");
    if (!covers)
      this.tell(
        element,
        `A link without words to ${clip(href)}`,
        "A link needs words or a picture to stand on.",
      );
    if (destination.kind === "file") {
      this.tell(
        element,
        `The link “${words}” to the file ${clip(href)}`,
        "It is kept, but the file was not brought along. Give an address from which relative links start, or change it to a web address.",
      );
    }
    return [...anchor, ...content];
  }

  private anchorOf(element: Element): Node[] {
    const name = element.properties["id"] ?? element.properties["name"];
    if (typeof name !== "string" || name === "" || this.places.has(name)) return [];
    const id = newId();
    // hast-util-raw may have put this prefix before names to keep them apart from others.
    this.places.set(name.replace(/^user-content-/, ""), id);
    return [schema.node("anchor", { id, name })];
  }

  private picture(element: Element, marks: readonly Mark[]): Node[] {
    const source = typeof element.properties["src"] === "string" ? element.properties["src"] : "";
    const alt = typeof element.properties["alt"] === "string" ? element.properties["alt"] : "";
    const file = source === "" ? null : this.options.pictureFor(source);
    if (file === null) {
      this.tell(
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

  private noteId(name: string): string {
    const known = this.noteIds.get(name);
    if (known) return known;
    const id = newId();
    this.noteIds.set(name, id);
    return id;
  }

  // ---- places

  private resolvePlaces(node: Node): Node {
    if (node.isText || node.isLeaf) return this.resolveMarks(node);
    return node.copy(mapChildren(node, (child) => this.resolvePlaces(child)));
  }

  private resolveMarks(node: Node): Node {
    const marks = node.marks.map((mark) => {
      const destination = mark.attrs["destination"] as Destination | undefined;
      if (destination?.kind !== "place") return mark;
      const target = this.placeFor(destination.target);
      return target ? mark.type.create({ ...mark.attrs, destination: { kind: "place", target } }) : mark;
    });
    return node.mark(marks);
  }

  private placeFor(name: string): string | undefined {
    if (name === "top" && !this.places.has(name)) return topOfBook;
    return this.places.get(name) ?? this.places.get(name.toLowerCase());
  }

  private listDeadPlaces(chapters: Node[]): void {
    const ids = new Set([topOfBook, ...this.places.values()]);
    for (const draft of this.drafts) ids.add(draft.title.attrs["id"] as string);
    const seen = new Set<string>();
    for (const chapter of chapters) {
      chapter.descendants((node) => {
        for (const mark of node.marks) {
          const destination = mark.attrs["destination"] as Destination | undefined;
          const id = mark.attrs["id"] as string;
          if (destination?.kind !== "place" || ids.has(destination.target) || seen.has(id)) continue;
          seen.add(id);
          this.leftOut.push({
            line: this.linkLines.get(id) ?? null,
            what: `The link “${clip(node.textContent)}” to #${clip(destination.target)}`,
            why: "It is kept, but the file has no such place.",
          });
        }
      });
    }
  }

  private tell(node: Nodes, what: string, why: string): void {
    this.leftOut.push({ line: lineOf(node), what, why });
  }
}

function lineOf(node: Nodes): number | null {
  return node.position?.start.line ?? null;
}

function mapChildren(node: Node, change: (child: Node) => Node): Node["content"] {
  let content = node.content;
  node.children.forEach((child, i) => {
    content = content.replaceChild(i, change(child));
  });
  return content;
}

function trimBlanks(nodes: Node[]): Node[] {
  const out = nodes.flatMap((node, i) => {
    if (!node.isText || nodes[i - 1]?.type.name !== "hard_break") return [node];
    const text = node.text!.replace(/^ +/, "");
    return text === "" ? [] : [schema.text(text, node.marks)];
  });
  const edge = (index: number, pattern: RegExp): void => {
    const node = out.at(index);
    if (!node?.isText) return;
    const text = node.text!.replace(pattern, "");
    if (text === "") out.splice(index, 1);
    else if (text !== node.text)
      out.splice(index === -1 ? out.length - 1 : index, 1, schema.text(text, node.marks));
  };
  edge(0, /^ +/);
  edge(-1, / +$/);
  return out;
}

function withoutLastNewline(nodes: Node[]): Node[] {
  const last = nodes.at(-1);
  if (!last?.text?.endsWith("\n")) return nodes;
  const text = last.text.slice(0, -1);
  return [...nodes.slice(0, -1), ...(text === "" ? [] : [schema.text(text, last.marks)])];
}

function clip(text: string): string {
  const folded = text.replace(/\s+/g, " ").trim();
  return folded.length > 60 ? folded.slice(0, 59) + "…" : folded;
}
