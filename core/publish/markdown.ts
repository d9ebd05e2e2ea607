import type { Html, List, Nodes, PhrasingContent, RootContent, Table, TableCell, TableRow } from "mdast";
import { gfmToMarkdown } from "mdast-util-gfm";
import { toMarkdown } from "mdast-util-to-markdown";
import type { Node } from "prosemirror-model";
import type { Destination } from "../destination/destination.ts";
import { topOfBook, type BookIndex } from "../manuscript/book-index.ts";
import { indexOf, pictureSuffix, usedPictures, type Book } from "../manuscript/book.ts";
import { inlineRuns, linkUses } from "../manuscript/links.ts";
import { HeadingLevels } from "../manuscript/outline.ts";
import { gapSign, positionOfReference, referenceWords } from "../manuscript/references.ts";
import {
  pictureAttrs,
  pictureWords,
  referenceAttrs,
  signpostAttrs,
  type PictureAttrs,
} from "../manuscript/schema.ts";
import { returnLinksOf, signpostsOf } from "../manuscript/signposts.ts";
import { asFolder } from "./export-folder.ts";
import { travel } from "./travel.ts";
import { travellingFiles, type TravellingFile } from "./travelling-files.ts";

/** The folder of an export that holds its pictures. */
const picturesFolder = "pictures";

/**
 * Writes a book as Markdown (CommonMark, GFM tables and footnotes) for going on elsewhere: every link with its
 * description, places as HTML anchors, notes as footnotes. With pictures or companion files it is a folder in a zip.
 * The same book gives the same bytes.
 * @param name the file's name
 */
export function writeMarkdown(book: Book, name: string): Uint8Array {
  const writer = new MarkdownWriter(book);
  const children = writer.blocksOfBook();
  const text = toMarkdown(
    { type: "root", children },
    { extensions: [gfmToMarkdown()], bullet: "-", emphasis: "*", rule: "*", listItemIndent: "one" },
  );
  const pictures = book.pictures
    .filter(({ id }) => writer.pictures.has(id))
    .map(({ id, bytes }): [string, Uint8Array] => [writer.pictures.get(id)!, bytes]);
  return asFolder(book, name, new TextEncoder().encode(text), pictures);
}

class MarkdownWriter {
  /** The paths of the pictures that the text shows, by their files' ids. */
  readonly pictures: ReadonlyMap<string, string>;
  private readonly index: BookIndex;
  private readonly files: ReadonlyMap<string, TravellingFile>;
  private readonly placed = new Set<string>();
  /** The places to which a link of the author leads. */
  private readonly targets: ReadonlySet<string>;
  private doc!: Node;
  private at = 0;
  private levels = new HeadingLevels();

  constructor(private readonly book: Book) {
    this.index = indexOf(book);
    this.files = travellingFiles(book);
    this.targets = new Set(
      book.chapters.flatMap(({ doc }) =>
        linkUses(doc).flatMap(({ destination: to }) => (to.kind === "place" ? [to.target] : [])),
      ),
    );
    const used = usedPictures(book);
    this.pictures = new Map(
      book.pictures
        .filter(({ id }) => used.has(id))
        .map(({ id, mediaType }) => [id, `${picturesFolder}/${id}.${pictureSuffix[mediaType]}`]),
    );
  }

  blocksOfBook(): RootContent[] {
    const blocks = this.book.chapters.flatMap((_, i) => this.chapter(i));
    return this.targets.has(topOfBook) ? placedAt(this.place(topOfBook), blocks) : blocks;
  }

  private chapter(at: number): RootContent[] {
    this.at = at;
    this.doc = this.book.chapters[at]!.doc;
    this.levels = new HeadingLevels();
    const returns = returnLinksOf(this.doc, at, this.index);
    const out: RootContent[] = [];
    this.doc.forEach((node, offset) => {
      if (node.type.name === "note") {
        const id = node.attrs["id"] as string;
        const children = this.targets.has(id)
          ? placedAt(this.place(id), this.blocks(node))
          : this.blocks(node);
        out.push({ type: "footnoteDefinition", identifier: id, label: id, children: children as never[] });
        return;
      }
      out.push(this.block(node));
      for (const { at: end, list, words } of returns)
        if (end === offset + node.nodeSize) out.push(paragraph([this.jump(list, words)]));
    });
    return out;
  }

  private blocks(parent: Node): RootContent[] {
    return parent.children.map((node) => this.block(node));
  }

  private block(node: Node): RootContent {
    switch (node.type.name) {
      case "title":
        return this.heading(node, 0);
      case "heading":
        return this.heading(node, node.attrs["level"] as number);
      case "blockquote":
        return { type: "blockquote", children: this.blocks(node) as never[] };
      case "code_block":
        return this.code(node);
      case "bullet_list":
        return this.list(node, null);
      case "ordered_list":
        return this.list(node, node.attrs["start"] as number);
      case "table":
        return this.table(node);
      case "section_break":
        return { type: "thematicBreak" };
      case "caption":
        return this.caption(node);
      case "signposts":
        return this.signposts(node);
      default:
        return paragraph(this.inlines(node));
    }
  }

  private heading(node: Node, level: number): RootContent {
    const id = node.attrs["id"] as string;
    const words = this.inlines(node);
    if (node.textContent.trim() === "") return paragraph([...this.place(id), ...words]);
    const number = this.index.places.get(id)?.number;
    const lead: PhrasingContent[] = number ? [{ type: "text", value: `${number} ` }] : [];
    const depth = this.levels.next(level) as 1 | 2 | 3 | 4 | 5;
    return { type: "heading", depth, children: [...this.place(id), ...lead, ...words] };
  }

  private list(node: Node, start: number | null): List {
    return {
      type: "list",
      ordered: start !== null,
      start,
      spread: false,
      children: node.children.map((item) => ({
        type: "listItem",
        spread: false,
        children: this.blocks(item) as never[],
      })),
    };
  }

  /** Code with links in it is written as text, since nothing in a code block is a link. */
  private code(node: Node): RootContent {
    const isPlain = node.children.every((inline) => inline.isText && inline.marks.length === 0);
    return isPlain ? { type: "code", value: node.textContent } : paragraph(this.inlines(node));
  }

  private table(node: Node): Table {
    const rows = node.children.map((row): TableRow => ({
      type: "tableRow",
      children: row.children.flatMap((cell) => this.cell(cell)),
    }));
    const align = node.firstChild!.children.flatMap((cell) =>
      Array.from({ length: cell.attrs["colspan"] as number }, () => cell.attrs["align"] as "left" | null),
    );
    return { type: "table", align, children: rows };
  }

  /** A cell, with empty ones beside it where it spans columns. */
  private cell(cell: Node): TableCell[] {
    const children = cell.children.flatMap((block, i): PhrasingContent[] => [
      ...(i > 0 ? [html("<br>")] : []),
      ...this.inlinesUnder(block),
    ]);
    const empty = Array.from({ length: (cell.attrs["colspan"] as number) - 1 }, (): TableCell => ({
      type: "tableCell",
      children: [],
    }));
    return [{ type: "tableCell", children }, ...empty];
  }

  private inlinesUnder(block: Node): PhrasingContent[] {
    if (block.isTextblock) return this.inlines(block);
    return block.children.flatMap((inner, i) => [
      ...(i > 0 ? [html("<br>") as PhrasingContent] : []),
      ...this.inlinesUnder(inner),
    ]);
  }

  private caption(node: Node): RootContent {
    const id = node.attrs["id"] as string;
    const place = this.index.places.get(id);
    const label = place ? this.index.labelOf(place) : null;
    const lead: PhrasingContent[] =
      label === null
        ? []
        : [
            { type: "strong", children: [{ type: "text", value: label }] },
            { type: "text", value: " " },
          ];
    return paragraph([...this.place(id), ...lead, ...this.inlines(node)]);
  }

  private signposts(node: Node): RootContent {
    const list = signpostAttrs(node);
    const entries = signpostsOf(list, this.index, this.at);
    const heading: PhrasingContent[] =
      list.heading === "" ? [] : [{ type: "strong", children: [{ type: "text", value: list.heading }] }];
    const items = entries.map(({ id, words, depth }): PhrasingContent[] => [
      { type: "text", value: "\u2003".repeat(depth) },
      this.jump(id, words),
    ]);
    return paragraph([
      ...this.place(list.id),
      ...heading,
      ...items.flatMap((item): PhrasingContent[] => [{ type: "break" }, ...item]),
    ]);
  }

  private inlines(block: Node): PhrasingContent[] {
    return inlineRuns(block).flatMap((run): PhrasingContent[] => {
      const children = run.nodes.flatMap((node) => this.inline(node));
      const href = run.link ? this.href(run.link.destination) : null;
      if (!run.link || href === null) return children;
      const isNote = ({ type }: Nodes): boolean => type === "footnoteReference";
      const areas = run.nodes.flatMap((node) => this.areasOf(node));
      return [
        {
          type: "link",
          url: href,
          title: run.link.description,
          children: children.filter((child) => !isNote(child)) as never[],
        },
        ...children.filter(isNote),
        ...areas,
      ];
    });
  }

  private inline(node: Node): PhrasingContent[] {
    switch (node.type.name) {
      case "text": {
        const marks = new Set(node.marks.map((mark) => mark.type.name));
        let text: PhrasingContent = marks.has("code")
          ? { type: "inlineCode", value: node.text! }
          : { type: "text", value: node.text! };
        if (marks.has("emphasis")) text = { type: "emphasis", children: [text] };
        if (marks.has("strong")) text = { type: "strong", children: [text] };
        return [text];
      }
      case "hard_break":
        return [{ type: "break" }];
      case "picture": {
        // Areas of a picture that is a link itself stand behind that link.
        const isLinked = node.marks.some((mark) => mark.type.name === "link");
        return [this.picture(pictureAttrs(node)), ...(isLinked ? [] : this.areasOf(node))];
      }
      case "anchor":
        return this.place(node.attrs["id"] as string);
      case "cross_reference":
        return [this.crossReference(node)];
      default: {
        const id = node.attrs["note"] as string;
        return this.index.places.get(id)?.kind === "note"
          ? [{ type: "footnoteReference", identifier: id, label: id }]
          : [{ type: "text", value: gapSign }];
      }
    }
  }

  private picture(picture: PictureAttrs): PhrasingContent {
    const path = picture.file === null ? undefined : this.pictures.get(picture.file);
    return path === undefined
      ? { type: "text", value: pictureWords(picture) }
      : { type: "image", url: path, alt: picture.alt };
  }

  /** Markdown has no areas, so each is a link behind its picture. */
  private areasOf(node: Node): PhrasingContent[] {
    if (node.type.name !== "picture") return [];
    return pictureAttrs(node).hotspots.flatMap(({ destination, description, alt }): PhrasingContent[] => {
      const url = this.href(destination);
      if (url === null) return [];
      return [
        { type: "text", value: " " },
        { type: "link", url, title: description, children: [{ type: "text", value: alt }] },
      ];
    });
  }

  private crossReference(node: Node): PhrasingContent {
    const reference = referenceAttrs(node);
    const from = { chapter: this.at, position: positionOfReference(this.doc, reference.id) };
    const says = referenceWords(reference, this.index, from, false);
    return says.is === "words" ? this.jump(reference.target, says.words) : { type: "text", value: gapSign };
  }

  private jump(place: string, words: string): PhrasingContent {
    return { type: "link", url: `#${place}`, children: [{ type: "text", value: words }] };
  }

  private href(destination: Destination): string | null {
    const way = travel(destination, this.index, this.files);
    if (way.as === "words") return null;
    if (way.as === "file") return way.file.path;
    return way.as === "address" ? way.address : `#${way.place.id}`;
  }

  /** An anchor of HTML, since Markdown has none; an id belongs to the first place that has it. */
  private place(id: string): PhrasingContent[] {
    if (this.placed.has(id)) return [];
    this.placed.add(id);
    return [html(`<a id="${id}"></a>`)];
  }
}

/** A place at the start of the first block's words, or above it where it has none. */
function placedAt(place: PhrasingContent[], blocks: RootContent[]): RootContent[] {
  const [first, ...rest] = blocks;
  if (first?.type !== "paragraph" && first?.type !== "heading") return [paragraph(place), ...blocks];
  return [{ ...first, children: [...place, ...first.children] }, ...rest];
}

function paragraph(children: PhrasingContent[]): RootContent {
  return { type: "paragraph", children };
}

function html(value: string): Html {
  return { type: "html", value };
}
