import type { Node } from "prosemirror-model";
import { pictureSuffix, placeIndex, type Book } from "../manuscript/book.ts";
import { inlineRuns } from "../manuscript/links.ts";
import { numberNotes, type NumberedNote } from "../manuscript/notes.ts";
import { HeadingLevels } from "../manuscript/outline.ts";
import { pictureAttrs, pictureWords, type LinkAttrs } from "../manuscript/schema.ts";
import { countHeadRows } from "../manuscript/tables.ts";
import { travel, type Travel } from "./travel.ts";

/** What the typesetter's template reads: JSON files by path. Author text is data in them, never markup. */
export type TypesetFiles = Map<string, string>;

/** A link that has an alternate description of its own, by the address that marks it in the PDF. */
export interface DescribedLink {
  marker: string;
  address: string;
  description: string;
}

export interface Typeset {
  files: TypesetFiles;
  /** Pictures to be laid beside the JSON, by path. */
  pictures: Map<string, Uint8Array>;
  described: DescribedLink[];
}

type Inline = Record<string, unknown>;
type Block = Record<string, unknown>;

/**
 * The data from which the typesetter makes a PDF: `book.json` and one file a chapter. A link with a
 * description carries a marker for its address; whoever writes the PDF puts address and description in.
 */
export function typesetBook(book: Book): Typeset {
  const builder = new TypesetBuilder(book);
  const files: TypesetFiles = new Map();
  const chapters = book.chapters.map((chapter, i) => {
    const path = `/chapter-${i + 1}.json`;
    files.set(path, JSON.stringify(builder.chapter(chapter.doc)));
    return path;
  });
  files.set(
    "/book.json",
    JSON.stringify({ title: book.title, author: book.author, lang: book.language, chapters }),
  );
  return { files, pictures: builder.pictures, described: builder.described };
}

class TypesetBuilder {
  readonly pictures = new Map<string, Uint8Array>();
  readonly described: DescribedLink[] = [];
  private readonly places: Map<string, number>;
  private readonly picturePaths = new Map<string, string>();
  private readonly labelled = new Set<string>();
  private notes = new Map<string, NumberedNote>();
  private notesSet = new Set<string>();
  private levels = new HeadingLevels();

  constructor(book: Book) {
    this.places = placeIndex(book);
    for (const picture of book.pictures) {
      const path = `/picture-${picture.id}.${pictureSuffix[picture.mediaType]}`;
      this.picturePaths.set(picture.id, path);
      this.pictures.set(path, picture.bytes);
    }
  }

  chapter(doc: Node): Block {
    const notes = numberNotes(doc);
    this.notes = new Map(notes.map((note) => [note.id, note]));
    this.notesSet = new Set();
    this.levels = new HeadingLevels();
    const blocks: Block[] = [];
    doc.forEach((node) => {
      if (node.type.name !== "note") blocks.push(this.block(node));
    });
    // A note that nothing refers to still holds text and links: it is set at the chapter's end.
    for (const note of notes) if (note.references === 0) blocks.push(...this.blocks(note.node));
    return { blocks };
  }

  private blocks(parent: Node): Block[] {
    return parent.children.map((child) => this.block(child));
  }

  private block(node: Node): Block {
    switch (node.type.name) {
      case "title":
        return this.heading(node, 0);
      case "heading":
        return this.heading(node, node.attrs["level"] as number);
      case "blockquote":
        return { t: "quote", c: this.blocks(node) };
      case "code_block":
        return { t: "listing", c: this.inlines(node) };
      case "bullet_list":
        return { t: "bullets", items: node.children.map((item) => this.blocks(item)) };
      case "ordered_list":
        return {
          t: "numbers",
          start: node.attrs["start"] as number,
          items: node.children.map((item) => this.blocks(item)),
        };
      case "table":
        return this.table(node);
      case "section_break":
        return { t: "section-break" };
      default:
        return { t: "paragraph", c: this.inlines(node) };
    }
  }

  private heading(node: Node, level: number): Block {
    const words = this.inlines(node);
    // A heading without words has no place in an outline (ISO 14289-1); it stays a landing place.
    if (!words.some((item) => item["t"] !== "anchor" && item["t"] !== "picture")) {
      const label = this.label(node.attrs["id"] as string);
      return { t: "paragraph", c: label ? [{ t: "anchor", label }, ...words] : words };
    }
    const shown = this.levels.next(level);
    // The contents list repeats a heading's words, so anchors in them are set behind the heading.
    return {
      t: "heading",
      level: shown,
      label: this.label(node.attrs["id"] as string),
      c: words.filter((item) => item["t"] !== "anchor"),
      anchors: words.filter((item) => item["t"] === "anchor"),
    };
  }

  private table(node: Node): Block {
    const columns = node.firstChild!.children.reduce(
      (sum, cell) => sum + (cell.attrs["colspan"] as number),
      0,
    );
    const headRows = countHeadRows(node);
    const rows = node.children.map((row) =>
      row.children.map((cell) => ({
        colspan: cell.attrs["colspan"] as number,
        rowspan: cell.attrs["rowspan"] as number,
        align: cell.attrs["align"] as string | null,
        head: cell.type.name === "table_header",
        c: this.blocks(cell),
      })),
    );
    return { t: "table", columns, head: rows.slice(0, headRows), rows: rows.slice(headRows) };
  }

  private inlines(block: Node): Inline[] {
    const out: Inline[] = [];
    // A picture that is all there is in its paragraph gets the width of the text.
    const alone = block.children.every((node) => node.type.name === "picture" || !node.textContent.trim());
    for (const run of inlineRuns(block)) {
      const isNote = (node: Node): boolean => node.type.name === "note_reference";
      const content = run.nodes
        .filter((node) => !run.link || !isNote(node))
        .flatMap((node) => this.inline(node, alone));
      if (!run.link) {
        out.push(...content);
        continue;
      }
      out.push(...this.link(run.link, content));
      // A link cannot hold another one: a note's number inside a link is set behind it.
      for (const node of run.nodes.filter(isNote)) out.push(...this.inline(node, alone));
    }
    return out;
  }

  private link(link: LinkAttrs, content: Inline[]): Inline[] {
    const way: Travel = travel(link.destination, this.places);
    if (way.as === "words") return content;
    if (way.as === "place") return [{ t: "link", place: way.target, c: content }];
    if (!link.description) return [{ t: "link", url: way.address, c: content }];
    const marker = `https://vennet.invalid/${this.described.length}`;
    this.described.push({ marker, address: way.address, description: link.description });
    return [{ t: "link", url: marker, c: content }];
  }

  private inline(node: Node, alone: boolean): Inline[] {
    switch (node.type.name) {
      case "text": {
        const marks = new Set(node.marks.map((mark) => mark.type.name));
        const run: Inline = { t: "text", v: node.text! };
        if (marks.has("strong")) run["strong"] = true;
        if (marks.has("emphasis")) run["em"] = true;
        if (marks.has("code")) run["code"] = true;
        return [run];
      }
      case "hard_break":
        return [{ t: "break" }];
      case "picture":
        return this.picture(node, alone);
      case "anchor": {
        const label = this.label(node.attrs["id"] as string);
        return label ? [{ t: "anchor", label }] : [];
      }
      default:
        return this.noteReference(node.attrs["note"] as string);
    }
  }

  private picture(node: Node, alone: boolean): Inline[] {
    const { file, alt, decorative } = pictureAttrs(node);
    const path = file === null ? undefined : this.picturePaths.get(file);
    if (!path) return [{ t: "text", v: pictureWords(pictureAttrs(node)) }];
    return [{ t: "picture", file: path, alt, decorative: decorative || alt === "", alone }];
  }

  private noteReference(id: string): Inline[] {
    const note = this.notes.get(id);
    if (!note) return [];
    const label = `note-${id}`;
    if (this.notesSet.has(id)) return [{ t: "note-again", label }];
    this.notesSet.add(id);
    return [{ t: "note", label, c: this.blocks(note.node) }];
  }

  private label(id: string): string | null {
    if (this.labelled.has(id)) return null;
    this.labelled.add(id);
    return id;
  }
}
