import {
  AlignmentType,
  Bookmark,
  Document,
  FootnoteReferenceRun,
  HeadingLevel,
  ImageRun,
  InternalHyperlink,
  LevelFormat,
  Packer,
  Paragraph,
  SimpleField,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
  type ILevelsOptions,
  type IParagraphOptions,
  type IRunOptions,
  type ParagraphChild,
} from "docx";
import type { Node } from "prosemirror-model";
import type { Destination } from "../destination/destination.ts";
import { topOfBook, type BookIndex } from "../manuscript/book-index.ts";
import { indexOf, pictureSuffix, usedPictures, type Book, type PictureFile } from "../manuscript/book.ts";
import { inlineRuns } from "../manuscript/links.ts";
import { numberNotes, type NumberedNote } from "../manuscript/notes.ts";
import { HeadingLevels } from "../manuscript/outline.ts";
import { textWidth } from "../manuscript/page-layout.ts";
import { pictureSize } from "../manuscript/picture-size.ts";
import { gapSign, positionOfReference, referenceWords } from "../manuscript/references.ts";
import {
  pictureAttrs,
  pictureWords,
  referenceAttrs,
  signpostAttrs,
  type LinkAttrs,
} from "../manuscript/schema.ts";
import { returnLinksOf, signpostsOf } from "../manuscript/signposts.ts";
import { countHeadRows } from "../manuscript/tables.ts";
import { asFolder } from "./export-folder.ts";
import { finishDocx, type DocxLink } from "./finish-docx.ts";
import { travel } from "./travel.ts";
import { travellingFiles, type TravellingFile } from "./travelling-files.ts";

/** How far in a list item, or an entry one level deeper, begins; in twips, a twentieth of a point. */
const indent = 360;
const deepestList = 8;
const headings = [
  HeadingLevel.HEADING_1,
  HeadingLevel.HEADING_2,
  HeadingLevel.HEADING_3,
  HeadingLevel.HEADING_4,
  HeadingLevel.HEADING_5,
];

type Block = Paragraph | Table;

/**
 * Writes a book as a text document (Office Open XML, ECMA-376) for going on elsewhere: every link with its
 * description, places as bookmarks, notes as footnotes. With companion files it is a folder in a zip. The same book
 * gives the same bytes.
 * @param name the file's name
 */
export async function writeDocx(book: Book, name: string): Promise<Uint8Array> {
  const writer = new DocxWriter(book);
  const children = writer.blocksOfBook();
  const document = new Document({
    title: book.title,
    creator: book.author,
    lastModifiedBy: book.author,
    styles: {
      default: { document: { run: { font: "Georgia", size: "11pt", language: { value: book.language } } } },
    },
    footnotes: writer.footnotes,
    numbering: { config: writer.numbering },
    sections: [{ children }],
  });
  const packed = new Uint8Array(await Packer.toArrayBuffer(document));
  return asFolder(book, name, finishDocx(packed, writer.links, book.modified));
}

class DocxWriter {
  readonly links: DocxLink[] = [];
  readonly footnotes: Record<string, { children: Paragraph[] }> = {};
  readonly numbering: { reference: string; levels: ILevelsOptions[] }[] = [];
  private readonly index: BookIndex;
  private readonly files: ReadonlyMap<string, TravellingFile>;
  private readonly pictures: ReadonlyMap<string, PictureFile>;
  private readonly placed = new Set<string>();
  /** The numbers of the notes that have been referred to, by their ids. */
  private readonly referred = new Map<string, number>();
  private notes = new Map<string, NumberedNote>();
  private doc!: Node;
  private at = 0;
  private levels = new HeadingLevels();

  constructor(private readonly book: Book) {
    this.index = indexOf(book);
    this.files = travellingFiles(book);
    const used = usedPictures(book);
    this.pictures = new Map(book.pictures.filter(({ id }) => used.has(id)).map((one) => [one.id, one]));
  }

  blocksOfBook(): Block[] {
    const { title, author } = this.book;
    const head = [
      new Paragraph({
        heading: HeadingLevel.TITLE,
        children: [...this.place(topOfBook), new TextRun(title)],
      }),
      new Paragraph({ children: [new TextRun(author)] }),
    ];
    return [...head, ...this.book.chapters.flatMap((_, i) => this.chapter(i))];
  }

  private chapter(at: number): Block[] {
    this.at = at;
    this.doc = this.book.chapters[at]!.doc;
    this.levels = new HeadingLevels();
    this.notes = new Map(numberNotes(this.doc).map((note) => [note.id, note]));
    const returns = returnLinksOf(this.doc, at, this.index);
    const out: Block[] = [];
    this.doc.forEach((node, offset) => {
      if (node.type.name === "note") return;
      out.push(...this.block(node, {}));
      for (const { at: end, list, words } of returns)
        if (end === offset + node.nodeSize) out.push(new Paragraph({ children: [this.jump(list, words)] }));
    });
    // A note that nothing refers to still holds text and links.
    for (const { node, references } of this.notes.values())
      if (references === 0) out.push(...this.noteBlocks(node));
    return out;
  }

  private block(node: Node, look: IParagraphOptions): Block[] {
    switch (node.type.name) {
      case "title":
        return [this.heading(node, 0)];
      case "heading":
        return [this.heading(node, node.attrs["level"] as number)];
      case "blockquote":
        return node.children.flatMap((inner) =>
          this.block(inner, { ...look, indent: { left: indent * 2, right: indent * 2 } }),
        );
      case "code_block":
        return [new Paragraph({ ...look, children: this.inlines(node, { font: "Courier New" }) })];
      case "bullet_list":
        return this.list(node, "bullets", 0);
      case "ordered_list":
        return this.list(node, this.numbersFrom(node.attrs["start"] as number), 0);
      case "table":
        return [this.table(node)];
      case "section_break":
        return [new Paragraph({ alignment: AlignmentType.CENTER, children: [new TextRun("* * *")] })];
      case "caption":
        return [this.caption(node)];
      case "signposts":
        return this.signposts(node);
      default:
        return [new Paragraph({ ...look, children: this.inlines(node) })];
    }
  }

  private heading(node: Node, level: number): Paragraph {
    const id = node.attrs["id"] as string;
    const words = this.inlines(node);
    if (node.textContent.trim() === "") return new Paragraph({ children: [...this.place(id), ...words] });
    const number = this.index.places.get(id)?.number;
    const lead = number ? [new TextRun(`${number} `)] : [];
    return new Paragraph({
      heading: headings[this.levels.next(level) - 1]!,
      pageBreakBefore: level === 0,
      children: [...this.place(id), ...lead, ...words],
    });
  }

  private list(list: Node, reference: string, level: number): Block[] {
    return list.children.flatMap((item) =>
      item.children.flatMap((inner, i): Block[] => {
        const deeper = Math.min(level + 1, deepestList);
        if (inner.type.name === "bullet_list") return this.list(inner, "bullets", deeper);
        if (inner.type.name === "ordered_list")
          return this.list(inner, this.numbersFrom(inner.attrs["start"] as number), deeper);
        const first = i === 0;
        const look: IParagraphOptions = !first
          ? { indent: { left: indent * (level + 1) } }
          : reference === "bullets"
            ? { bullet: { level } }
            : { numbering: { reference, level } };
        return this.block(inner, look);
      }),
    );
  }

  /** A numbering of its own for each list, so that each begins at its own number. */
  private numbersFrom(start: number): string {
    const reference = `numbers-${this.numbering.length + 1}`;
    const levels = Array.from({ length: deepestList + 1 }, (_, level) => ({
      level,
      format: LevelFormat.DECIMAL,
      text: `%${level + 1}.`,
      start,
      style: { paragraph: { indent: { left: indent * (level + 2), hanging: indent } } },
    }));
    this.numbering.push({ reference, levels });
    return reference;
  }

  private table(node: Node): Table {
    const heads = countHeadRows(node);
    return new Table({
      width: { size: 100, type: WidthType.PERCENTAGE },
      rows: node.children.map(
        (row, i) =>
          new TableRow({
            tableHeader: i < heads,
            children: row.children.map(
              (cell) =>
                new TableCell({
                  columnSpan: cell.attrs["colspan"] as number,
                  rowSpan: cell.attrs["rowspan"] as number,
                  children: cell.children.flatMap((block) => this.block(block, alignedAs(cell))),
                }),
            ),
          }),
      ),
    });
  }

  private caption(node: Node): Paragraph {
    const id = node.attrs["id"] as string;
    const place = this.index.places.get(id);
    const label = place ? this.index.labelOf(place) : null;
    const lead = label === null ? [] : [new TextRun({ text: `${label} `, bold: true })];
    return new Paragraph({ children: [...this.place(id), ...lead, ...this.inlines(node, { size: "9pt" })] });
  }

  private signposts(node: Node): Block[] {
    const list = signpostAttrs(node);
    const head = new Paragraph({
      keepNext: true,
      children: [...this.place(list.id), new TextRun({ text: list.heading, bold: true })],
    });
    const entries = signpostsOf(list, this.index, this.at).map(
      ({ id, words, depth }) =>
        new Paragraph({ indent: { left: indent * depth }, children: [this.jump(id, words)] }),
    );
    return [head, ...entries];
  }

  private inlines(block: Node, look: IRunOptions = {}): ParagraphChild[] {
    return inlineRuns(block).flatMap((run): ParagraphChild[] => {
      const target = run.link ? this.target(run.link.destination) : null;
      if (!run.link || target === null) return run.nodes.flatMap((node) => this.inline(node, look));
      const style = this.linkLook(run.link);
      const isNote = (node: Node): boolean => node.type.name === "note_reference";
      const words = run.nodes.filter((node) => !isNote(node));
      return [
        this.link(
          target,
          run.link.description,
          words.flatMap((node) => this.withoutAreas(node, { ...look, ...style })),
        ),
        ...words.flatMap((node) => this.areasOf(node)),
        ...run.nodes.filter(isNote).flatMap((node) => this.inline(node, look)),
      ];
    });
  }

  private inline(node: Node, look: IRunOptions): ParagraphChild[] {
    if (node.type.name !== "picture") return this.withoutAreas(node, look);
    return [...this.withoutAreas(node, look), ...this.areasOf(node)];
  }

  private withoutAreas(node: Node, look: IRunOptions): ParagraphChild[] {
    switch (node.type.name) {
      case "text":
        return this.text(node, look);
      case "hard_break":
        return [new TextRun({ ...look, break: 1 })];
      case "picture":
        return [this.picture(node, look)];
      case "anchor":
        return this.place(node.attrs["id"] as string);
      case "cross_reference":
        return [this.crossReference(node)];
      default:
        return [this.noteReference(node.attrs["note"] as string)];
    }
  }

  /** Text in its marks; a line of code that ends is a line break. */
  private text(node: Node, look: IRunOptions): ParagraphChild[] {
    const marks = new Set(node.marks.map((mark) => mark.type.name));
    const style: IRunOptions = {
      ...look,
      ...(marks.has("strong") ? { bold: true } : {}),
      ...(marks.has("emphasis") ? { italics: true } : {}),
      ...(marks.has("code") ? { font: "Courier New" } : {}),
    };
    return node
      .text!.split("\n")
      .map((text, i) => new TextRun({ ...style, text, ...(i > 0 ? { break: 1 } : {}) }));
  }

  private picture(node: Node, look: IRunOptions): ParagraphChild {
    const attrs = pictureAttrs(node);
    const file = attrs.file === null ? undefined : this.pictures.get(attrs.file);
    if (!file) return new TextRun({ ...look, text: pictureWords(attrs) });
    const own = pictureSize(file);
    const available = textWidth(this.book.layout);
    const width = attrs.width === null ? Math.min(own.width, available) : (available * attrs.width) / 100;
    const height = own.width === 0 ? width : (own.height * width) / own.width;
    return new ImageRun({
      type: pictureSuffix[file.mediaType] as "png",
      data: file.bytes,
      transformation: { width: Math.max(1, Math.round(width)), height: Math.max(1, Math.round(height)) },
      altText: { name: file.id, title: "", description: attrs.decorative ? "" : attrs.alt },
    });
  }

  /** A text document has no areas, so each is a link behind its picture. */
  private areasOf(node: Node): ParagraphChild[] {
    if (node.type.name !== "picture") return [];
    return pictureAttrs(node).hotspots.flatMap(({ destination, description, alt }): ParagraphChild[] => {
      const target = this.target(destination);
      if (target === null) return [];
      return [
        new TextRun(" "),
        this.link(target, description, [new TextRun({ text: alt, style: "Hyperlink" })]),
      ];
    });
  }

  private crossReference(node: Node): ParagraphChild {
    const reference = referenceAttrs(node);
    const from = { chapter: this.at, position: positionOfReference(this.doc, reference.id) };
    const says = referenceWords(reference, this.index, from, false);
    return says.is === "words" ? this.jump(reference.target, says.words) : new TextRun(gapSign);
  }

  private noteReference(id: string): ParagraphChild {
    const note = this.notes.get(id);
    if (!note) return new TextRun(gapSign);
    const known = this.referred.get(id);
    // A footnote is referred to once; further references repeat its number.
    if (known !== undefined) return new SimpleField(`NOTEREF note-${known} \\f \\h`, String(known));
    const number = this.referred.size + 1;
    this.referred.set(id, number);
    this.footnotes[number] = { children: this.noteBlocks(note.node) };
    return note.references > 1
      ? new Bookmark({ id: `note-${number}`, children: [new FootnoteReferenceRun(number)] })
      : new FootnoteReferenceRun(number);
  }

  /** A footnote holds paragraphs alone, so the text of all else in it is set as such. */
  private noteBlocks(note: Node): Paragraph[] {
    const place = this.place(note.attrs["id"] as string);
    const blocks: Node[] = [];
    note.descendants((inner) => {
      if (inner.isTextblock) blocks.push(inner);
      return !inner.isTextblock;
    });
    return blocks.map(
      (block, i) => new Paragraph({ children: [...(i === 0 ? place : []), ...this.inlines(block)] }),
    );
  }

  private linkLook({ asText, destination }: LinkAttrs): IRunOptions {
    if (asText) return {};
    const { colour, underline, bold } = this.book.looks[destination.kind];
    return {
      color: colour.replace("#", ""),
      ...(underline === "none" ? {} : { underline: {} }),
      ...(bold ? { bold } : {}),
    };
  }

  private target(destination: Destination): DocxLink["to"] | null {
    const way = travel(destination, this.index, this.files);
    if (way.as === "words") return null;
    if (way.as === "place") return { place: way.place.id };
    return { address: way.as === "file" ? way.file.path : way.address };
  }

  private jump(place: string, words: string): ParagraphChild {
    return this.link({ place }, null, [new TextRun({ text: words, style: "Hyperlink" })]);
  }

  /** A link whose anchor is a marker, in the place of which finishing puts where it leads. */
  private link(to: DocxLink["to"], description: string | null, children: ParagraphChild[]): ParagraphChild {
    const marker = `vennet-link-${this.links.length}`;
    this.links.push({ marker, to, description });
    return new InternalHyperlink({ anchor: marker, children });
  }

  private place(id: string): ParagraphChild[] {
    if (this.placed.has(id)) return [];
    this.placed.add(id);
    return [new Bookmark({ id, children: [] })];
  }
}

function alignedAs(cell: Node): IParagraphOptions {
  const align = cell.attrs["align"] as "left" | "center" | "right" | null;
  return align === null ? {} : { alignment: align };
}
