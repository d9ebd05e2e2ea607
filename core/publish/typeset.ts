import type { Node } from "prosemirror-model";
import type { Destination } from "../destination/destination.ts";
import { topOfBook, type BookIndex } from "../manuscript/book-index.ts";
import { indexOf, pictureSuffix, type Book } from "../manuscript/book.ts";
import { captionedBlocks, type CaptionedBlock } from "../manuscript/captions.ts";
import { chapterTitle } from "../manuscript/chapter.ts";
import { hotspotBox } from "../manuscript/hotspot.ts";
import { inlineRuns } from "../manuscript/links.ts";
import { numberNotes, referenceId, type NumberedNote } from "../manuscript/notes.ts";
import { HeadingLevels } from "../manuscript/outline.ts";
import { gapSign, positionOfReference, referenceWords } from "../manuscript/references.ts";
import {
  pictureAttrs,
  pictureWords,
  referenceAttrs,
  signpostAttrs,
  type LinkAttrs,
} from "../manuscript/schema.ts";
import { hasOwnContents, returnLinksOf, signpostsOf } from "../manuscript/signposts.ts";
import { countHeadRows } from "../manuscript/tables.ts";
import { returnName } from "./return-name.ts";
import { pageSize } from "../manuscript/page-layout.ts";
import { travel } from "./travel.ts";
import { travellingFiles, type TravellingFile } from "./travelling-files.ts";

/** What the typesetter's template reads: JSON files by path. Author text is data in them, never markup. */
export type TypesetFiles = Map<string, string>;

/** A link as it is to be in the finished PDF, by the address that marks it in the typesetter's. */
export interface MarkedLink {
  marker: string;
  to: { address: string } | { place: string };
  description: string;
}

/** How a book that is to be printed shows its web addresses: not at all, as notes, or in a list at its end. */
export type PrintedAddresses = "none" | "notes" | "list";

/** One chapter that is set without the others, with the page numbers of the rest as they are known. */
export interface ChapterAlone {
  chapter: number;
  pageOfPlace: ReadonlyMap<string, string>;
}

export interface Typeset {
  files: TypesetFiles;
  /** Pictures to be laid beside the JSON, by path. */
  pictures: Map<string, Uint8Array>;
  marked: MarkedLink[];
}

type Inline = Record<string, unknown>;
type Block = Record<string, unknown>;

/**
 * The data from which the typesetter makes a PDF: `book.json` and one file a chapter. A link into the book,
 * and one with a description, carries a marker for its address; whoever finishes the PDF puts in where it
 * leads. `places` in `book.json` names every landing place whose position is asked for. Numbers and references are those of
 * the whole book also where one chapter is set alone.
 */
export function typesetBook(
  book: Book,
  addresses: PrintedAddresses = "none",
  alone: ChapterAlone | null = null,
): Typeset {
  const builder = new TypesetBuilder(book, addresses);
  const files: TypesetFiles = new Map();
  const set = alone === null ? book.chapters.map((_, i) => i) : [alone.chapter];
  const chapters = set.map((i) => {
    const path = `/chapter-${i + 1}.json`;
    files.set(path, JSON.stringify(builder.chapter(i)));
    return path;
  });
  const { words, conventions } = builder.index;
  const notes =
    conventions.notesAt === "book"
      ? set.flatMap((i) => {
          const list = builder.notesOf(i);
          return list.length > 0 ? [{ chapter: chapterTitle(book.chapters[i]!.doc), notes: list }] : [];
        })
      : [];
  files.set(
    "/book.json",
    JSON.stringify({
      title: book.title,
      author: book.author,
      lang: book.language,
      looks: book.looks,
      layout: { ...book.layout, ...pageSize(book.layout) },
      words,
      top: topOfBook,
      contents: alone === null && !hasOwnContents(book),
      // Pages that are not set with it are known from an earlier file, if at all.
      alone: alone && { pages: Object.fromEntries(alone.pageOfPlace) },
      chapters,
      notes,
      addresses: builder.printed,
      places: [...(alone ? [] : [topOfBook]), ...builder.labelled, ...builder.held.keys()],
      held: Object.fromEntries(builder.held),
    }),
  );
  return { files, pictures: builder.pictures, marked: builder.marked };
}

class TypesetBuilder {
  readonly index: BookIndex;
  readonly pictures = new Map<string, Uint8Array>();
  readonly marked: MarkedLink[] = [];
  /** The web addresses that are printed in a list at the end, in parts between which a line may end. */
  readonly printed: string[][] = [];
  /** The landing places that have been set. */
  readonly labelled = new Set<string>();
  /** Places inside headings, each with its heading's, where they land. */
  readonly held = new Map<string, string>();
  private readonly files: ReadonlyMap<string, TravellingFile>;
  private readonly picturePaths = new Map<string, string>();
  private printedAddresses = 0;
  private doc!: Node;
  private at = 0;
  private notes = new Map<string, NumberedNote>();
  private notesSet = new Set<string>();
  private references = new Map<string, number>();
  private levels = new HeadingLevels();

  constructor(
    private readonly book: Book,
    private readonly addresses: PrintedAddresses,
  ) {
    this.index = indexOf(book);
    this.files = travellingFiles(book);
    for (const picture of book.pictures) {
      const path = `/picture-${picture.id}.${pictureSuffix[picture.mediaType]}`;
      this.picturePaths.set(picture.id, path);
      this.pictures.set(path, picture.bytes);
    }
  }

  chapter(at: number): Block {
    const notes = this.begin(at);
    const returns = returnLinksOf(this.doc, at, this.index);
    const blocks: Block[] = [];
    for (const block of captionedBlocks(this.doc)) {
      if (block.node.type.name === "note") continue;
      blocks.push(this.captioned(block));
      for (const link of returns)
        if (link.at === block.end)
          blocks.push({ t: "return", words: link.words, url: this.toPlace(link.list, link.words) });
    }
    const { notesAt } = this.index.conventions;
    if (notesAt === "chapter" && notes.length > 0) blocks.push({ t: "notes", notes: this.notesOf(at) });
    if (notesAt === "page") {
      // A note that nothing refers to still holds text and links: it is set at the chapter's end.
      const alone = notes.filter(({ references }) => references === 0);
      if (alone.length > 0) blocks.push({ t: "notes", notes: alone.map((note) => this.note(note)) });
    }
    return { title: chapterTitle(this.doc), blocks };
  }

  /** The notes of a chapter, for its end or the book's. */
  notesOf(at: number): Block[] {
    return this.begin(at).map((note) => this.note(note));
  }

  private begin(at: number): NumberedNote[] {
    this.at = at;
    this.doc = this.book.chapters[at]!.doc;
    const notes = numberNotes(this.doc);
    this.notes = new Map(notes.map((note) => [note.id, note]));
    this.notesSet = new Set();
    this.references = new Map();
    this.levels = new HeadingLevels();
    return notes;
  }

  private note(note: NumberedNote): Block {
    const label = this.label(note.id);
    const blocks = this.blocks(note.node);
    // A place of its own above a list would lie on the line before it.
    const isWithin = label !== null && blocks[0]?.["t"] !== "paragraph" && placedInWords(blocks, label);
    return {
      number: this.index.places.get(note.id)!.number,
      label: isWithin ? null : label,
      c: blocks,
      returns: this.returnsOf(note),
    };
  }

  /** The ways back from a note, one for each reference to it. */
  private returnsOf({ id, references }: NumberedNote): Inline[] {
    const { returnWords } = this.index.conventions;
    return Array.from({ length: references }, (_, i) => {
      const name = returnName(this.index, i + 1, references) ?? returnWords;
      return { t: "text-link", words: returnWords, url: this.toPlace(referenceId(id, i + 1), name) };
    });
  }

  private blocks(parent: Node): Block[] {
    return captionedBlocks(parent).map((block) => this.captioned(block));
  }

  private captioned({ node, caption, captionFirst }: CaptionedBlock): Block {
    if (!caption) return this.block(node);
    return { t: "captioned", body: this.block(node), caption: this.caption(caption), first: captionFirst };
  }

  private caption(node: Node): Block {
    const id = node.attrs["id"] as string;
    const place = this.index.places.get(id);
    const lead = place ? this.index.labelOf(place) : null;
    return { t: "caption", lead, c: this.withLabel(id, this.inlines(node)) };
  }

  /** Words with a landing place before them. */
  private withLabel(id: string, words: Inline[]): Inline[] {
    const label = this.label(id);
    return label ? [{ t: "anchor", label }, ...words] : words;
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
      case "caption":
        return this.caption(node);
      case "signposts":
        return this.signposts(node);
      default:
        return { t: "paragraph", c: this.inlines(node) };
    }
  }

  private heading(node: Node, level: number): Block {
    const id = node.attrs["id"] as string;
    const words = this.inlines(node, true);
    // A heading without words has no place in an outline (ISO 14289-1); it stays a landing place.
    if (!words.some((item) => item["t"] !== "anchor" && item["t"] !== "picture"))
      return { t: "paragraph", c: this.withLabel(id, words) };
    const shown = this.levels.next(level);
    const number = this.index.places.get(id)?.number ?? null;
    // The contents list repeats a heading's words, and no place can be set twice.
    for (const place of anchorsIn(words)) this.hold(place, id);
    return {
      t: "heading",
      level: shown,
      label: this.label(id),
      number,
      c: withoutAnchors(words),
    };
  }

  private signposts(node: Node): Block {
    const list = signpostAttrs(node);
    const entries = signpostsOf(list, this.index, this.at).map(({ id, words, depth }) => ({
      depth,
      words,
      page: id,
      url: this.toPlace(id, words),
    }));
    return { t: "signposts", label: this.label(list.id), heading: list.heading, entries };
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

  /** A heading is repeated elsewhere, so no web address is written out in it. */
  private inlines(block: Node, isHeading = false): Inline[] {
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
      out.push(...this.link(run.link, content, !isHeading));
      // A link cannot hold another one: a note's number inside a link is set behind it.
      for (const node of run.nodes.filter(isNote)) out.push(...this.inline(node, alone));
    }
    return isHeading ? out : withAnchorsHeld(out);
  }

  private link(link: LinkAttrs, content: Inline[], printed: boolean): Inline[] {
    const url = this.target(link.destination, link.description);
    if (url === null) return content;
    const { kind } = link.destination;
    const set: Inline = { t: "link", kind: link.asText ? "text" : kind, url, c: content };
    if (kind !== "web" || this.addresses === "none" || !printed) return [set];
    const { address } = link.destination as { address: string };
    this.printedAddresses++;
    if (this.addresses === "notes")
      return [set, { t: "address", number: this.printedAddresses, address: breakable(address) }];
    this.printed.push(breakable(address));
    return [set, { t: "address", number: this.printedAddresses, address: null }];
  }

  /** The address, or the marker of one, by which the template links; null where the link cannot travel. */
  private target(destination: Destination, description: string | null): string | null {
    const way = travel(destination, this.index, this.files);
    if (way.as === "words") return null;
    if (way.as === "place") return this.toPlace(way.place.id, description ?? way.place.words);
    const address = way.as === "file" ? way.file.path : way.address;
    return description ? this.mark({ address }, description) : address;
  }

  private toPlace(place: string, description: string): string {
    return this.mark({ place }, description);
  }

  private mark(to: MarkedLink["to"], description: string): string {
    const marker = `https://vennet.invalid/${this.marked.length}`;
    this.marked.push({ marker, to, description });
    return marker;
  }

  private crossReference(node: Node): Inline[] {
    const reference = referenceAttrs(node);
    const from = { chapter: this.at, position: positionOfReference(this.doc, reference.id) };
    const says = referenceWords(reference, this.index, from, true);
    if (says.is === "gap") return [{ t: "text", v: gapSign, strong: true }];
    const { words } = this.index.places.get(reference.target)!;
    const c: Inline[] =
      says.is === "words"
        ? [{ t: "text", v: says.words }]
        : [
            { t: "text", v: says.before },
            { t: "page", place: reference.target },
            { t: "text", v: says.after },
          ];
    const shown = says.is === "words" ? says.words : says.before;
    return [{ t: "link", kind: "place", url: this.toPlace(reference.target, words || shown), c }];
  }

  private inline(node: Node, alone: boolean): Inline[] {
    switch (node.type.name) {
      case "text": {
        const marks = new Set(node.marks.map((mark) => mark.type.name));
        const run: Inline = { t: "text", v: node.text! };
        if (marks.has("strong")) run["strong"] = true;
        if (marks.has("emphasis")) run["em"] = true;
        if (marks.has("code")) run["code"] = true;
        return breakable(node.text!).flatMap((part, i) => [
          ...(i > 0 ? [{ t: "may-break" }] : []),
          { ...run, v: part },
        ]);
      }
      case "hard_break":
        return [{ t: "break" }];
      case "picture":
        return this.picture(node, alone);
      case "anchor": {
        const label = this.label(node.attrs["id"] as string);
        return label ? [{ t: "anchor", label }] : [];
      }
      case "cross_reference":
        return this.crossReference(node);
      default:
        return this.noteReference(node.attrs["note"] as string);
    }
  }

  private picture(node: Node, alone: boolean): Inline[] {
    const { file, alt, decorative, width } = pictureAttrs(node);
    const path = file === null ? undefined : this.picturePaths.get(file);
    if (!path) return [{ t: "text", v: pictureWords(pictureAttrs(node)) }];
    const hotspots = pictureAttrs(node).hotspots.flatMap((hotspot) => {
      // An area has no words, so its text alternative is what the annotation says.
      const url = this.target(hotspot.destination, hotspot.description ?? hotspot.alt);
      return url !== null
        ? [{ url, ...hotspotBox(hotspot), frame: hotspot.frame, shape: hotspot.shape }]
        : [];
    });
    return [
      {
        t: "picture",
        file: path,
        alt,
        decorative: decorative || alt === "",
        alone,
        percent: width,
        hotspots,
      },
    ];
  }

  private noteReference(id: string): Inline[] {
    const note = this.notes.get(id);
    if (!note) return [{ t: "text", v: gapSign, strong: true }];
    const count = (this.references.get(id) ?? 0) + 1;
    this.references.set(id, count);
    const number = this.index.places.get(id)!.number;
    const here: Inline = { t: "anchor", label: this.label(referenceId(id, count)) };
    if (this.index.conventions.notesAt !== "page")
      return [here, { t: "raised-link", words: number, url: this.toPlace(id, `${number}`) }];
    const label = `fn-${id}`;
    if (this.notesSet.has(id)) return [here, { t: "note-again", number, footnote: label }];
    this.notesSet.add(id);
    return [here, { t: "note", footnote: label, ...this.note(note) }];
  }

  private hold(place: string, by: string): void {
    this.labelled.delete(place);
    this.held.set(place, by);
  }

  /** The label of a landing place, unless it has been set already. */
  private label(id: string): string | null {
    if (this.labelled.has(id) || this.held.has(id)) return null;
    this.labelled.add(id);
    return id;
  }
}

// Longer ones do not fit into a line of a small page, and nobody would hyphenate them.
const longSigns = /(?=\S*[^A-Za-z\s-])[!-~]{31,}/g;
const signPieces = /[^/.?&=_#%:;,-]{1,10}[/.?&=_#%:;,-]*|[/.?&=_#%:;,-]+/g;

/** Text in parts between which a line may end: addresses and other long signs would run over the margin. */
function breakable(text: string): string[] {
  const here = "\0";
  return text.replace(longSigns, (signs) => signs.match(signPieces)!.join(here)).split(here);
}

/**
 * Sets each anchor that stands between words behind the first letter of those after it: what has no width would
 * stay behind at a line's end when they go on to the next line.
 */
function withAnchorsHeld(words: Inline[]): Inline[] {
  const out: Inline[] = [];
  for (let i = 0; i < words.length; i++) {
    const start = i;
    while (words[i]?.["t"] === "anchor") i++;
    const anchors = words.slice(start, i);
    const after = words[i];
    if (anchors.length > 0 && start > 0 && after) out.push(...heldBy(after, anchors));
    else out.push(...anchors, ...(after ? [after] : []));
  }
  return out;
}

function heldBy(item: Inline, anchors: Inline[]): Inline[] {
  if (item["t"] === "link") {
    const [first, ...rest] = item["c"] as Inline[];
    return first ? [{ ...item, c: [...heldBy(first, anchors), ...rest] }] : [...anchors, item];
  }
  const held = item["t"] === "text" ? /^(\s*\p{L}\p{M}*)(.+)$/su.exec(item["v"] as string) : null;
  if (!held) return [...anchors, item];
  return [{ ...item, v: held[1] }, ...anchors, { ...item, v: held[2] }];
}

function anchorsIn(words: Inline[]): string[] {
  return words.flatMap((item) => {
    if (item["t"] === "anchor") return item["label"] === null ? [] : [item["label"] as string];
    return item["t"] === "link" ? anchorsIn(item["c"] as Inline[]) : [];
  });
}

function withoutAnchors(words: Inline[]): Inline[] {
  return words
    .filter((item) => item["t"] !== "anchor")
    .map((item) => (item["t"] === "link" ? { ...item, c: withoutAnchors(item["c"] as Inline[]) } : item));
}

/** Puts a landing place before the words of the first paragraph of some blocks; false where they have none. */
function placedInWords(blocks: Block[], label: string): boolean {
  for (const block of blocks) {
    if (block["t"] === "paragraph") {
      (block["c"] as Inline[]).unshift({ t: "anchor", label });
      return true;
    }
    const inner = [block["c"], ...((block["items"] as unknown[]) ?? [])].filter(Array.isArray) as Block[][];
    if (inner.some((some) => placedInWords(some, label))) return true;
  }
  return false;
}
