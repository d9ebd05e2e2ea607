import {
  AlignmentType,
  Bookmark,
  Document,
  type FileChild,
  FootnoteReferenceRun,
  HeadingLevel,
  Packer,
  PageBreak,
  Paragraph,
  SimpleField,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
  type IParagraphOptions,
  type IRunOptions,
  type ParagraphChild,
} from "docx";
import type { Node } from "prosemirror-model";
import { topOfBook } from "../../../manuscript/book-index.ts";
import { indexOf, usedPictures, type Book } from "../../../manuscript/book.ts";
import type { InlineRun } from "../../../manuscript/links.ts";
import type { MathElement } from "../../../manuscript/math.ts";
import { gapSign } from "../../../manuscript/references.ts";
import {
  captionAttrs,
  pictureAttrs,
  pictureWords,
  referenceAttrs,
  signpostAttrs,
  type LinkAttrs,
} from "../../../manuscript/attributes.ts";
import type { SetOff } from "../../../manuscript/set-off.ts";
import { signpostsOf, type ReturnLink } from "../../../manuscript/signposts.ts";
import { countHeadRows } from "../../../manuscript/tables.ts";
import {
  ChapterWalk,
  type BlockHandlers,
  type InlineHandlers,
  type WalkedChapter,
} from "../../../manuscript/walk.ts";
import { asFolder } from "../../export-folder.ts";
import { saidOfArea, saidOfList } from "../../said-for-coming-back.ts";
import { taskSign } from "../../task-sign.ts";
import type { BookBeingWritten } from "./book-being-written.ts";
import { ContentControls } from "./content-controls.ts";
import { DocxLinks, linkedWords } from "./docx-links.ts";
import { finishDocx } from "./finish-docx.ts";
import { mathOfDocx } from "./math-of-docx.ts";
import { pageOfDocx } from "./page-of-docx.ts";
import { pictureOfDocx } from "./picture-of-docx.ts";
import { setOffParagraphs, setOffStyles } from "./set-off-styles.ts";
import { deepestList, indent, Numberings } from "./numberings.ts";
import { alignedAs, languageOptions, listing, textRuns } from "./words-of-docx.ts";

const headings = [
  HeadingLevel.HEADING_1,
  HeadingLevel.HEADING_2,
  HeadingLevel.HEADING_3,
  HeadingLevel.HEADING_4,
  HeadingLevel.HEADING_5,
];

type Block = FileChild;

/** How the words of a block look, and the block itself. */
interface Style {
  block: IParagraphOptions;
  words: IRunOptions;
  /** What stands before the words of the first paragraph. */
  sign?: ParagraphChild;
}

const plain: Style = { block: {}, words: {} };
const small: IRunOptions = { size: "9pt" };

/**
 * Writes a book as a text document (Office Open XML, ECMA-376) for going on elsewhere: every link with its
 * description, places as bookmarks, notes as footnotes. With companion files it is a folder in a zip. The same book
 * gives the same bytes.
 * @param name the file's name
 */
export async function writeDocx(book: Book, name: string): Promise<{ bytes: Uint8Array; isFolder: boolean }> {
  const used = usedPictures(book);
  const index = indexOf(book);
  const writing: BookBeingWritten = {
    book,
    index,
    pictures: new Map(book.pictures.filter(({ id }) => used.has(id)).map((one) => [one.id, one])),
    links: new DocxLinks(book, index),
    footnotes: {},
    numbering: new Numberings(),
    referred: new Map(),
    controls: new ContentControls(),
  };
  const title = new Paragraph({
    heading: HeadingLevel.TITLE,
    children: [...writing.links.place(topOfBook), new TextRun(book.title)],
  });
  const author = new Paragraph({ children: [new TextRun(book.author)] });
  const head = writing.controls.block({ made: "" }, [title, author]);
  writing.controls.say("counts", JSON.stringify(book.conventions));
  const chapters = book.chapters.flatMap(({ doc }, at) =>
    new DocxWalk({ doc, at, index }, writing).wholeChapter(),
  );
  const document = new Document({
    title: book.title,
    creator: book.author,
    lastModifiedBy: book.author,
    // The library takes no great number of them: finishing writes them all.
    customProperties: writing.controls.properties.slice(0, 1),
    styles: {
      paragraphStyles: setOffStyles,
      characterStyles: [{ id: "HTMLCode", name: "HTML Code" }],
      default: { document: { run: { font: "Georgia", size: "11pt", ...languageOptions(book.language) } } },
    },
    footnotes: writing.footnotes,
    numbering: { config: writing.numbering.config },
    sections: [{ properties: { page: pageOfDocx(book.layout) }, children: [head, ...chapters] }],
  });
  const packed = new Uint8Array(await Packer.toArrayBuffer(document));
  return asFolder(
    book,
    name,
    finishDocx(packed, { ...book, links: writing.links.written, properties: writing.controls.properties }),
  );
}

class DocxWalk extends ChapterWalk<Block, ParagraphChild, Style> {
  private readonly links: DocxLinks;
  private readonly controls: ContentControls;

  protected readonly blockHandlers: BlockHandlers<Block, Style> = {
    title: (node) => [this.heading(node, 0)],
    heading: (node) => [this.heading(node, node.attrs["level"] as number)],
    paragraph: (node, { block, sign }) => {
      const align = node.attrs["align"] as "center" | "end" | null;
      const children = [...(sign ? [sign] : []), ...this.inlines(node, plain)];
      return [new Paragraph({ ...block, ...(align === null ? {} : { alignment: align }), children })];
    },
    blockquote: (node, style) => {
      const kind = node.attrs["kind"] as SetOff;
      const block = { ...style.block, ...setOffParagraphs[kind] };
      return [this.controls.block({ part: kind }, this.blocks(node, { ...style, block }))];
    },
    code_block: (node, { block }) => {
      const children = this.inlines(node, { block, words: listing });
      const lines = new Paragraph({ ...block, style: "HTMLPreformatted", children });
      return [this.controls.block({ part: "listing", of: node.attrs["language"] as string | null }, [lines])];
    },
    bullet_list: (node) => this.list(node, 0),
    ordered_list: (node) => this.list(node, 0),
    definition_list: (node) => [this.controls.block({ part: "definitions" }, this.definitions(node))],
    table: (node) => [this.table(node)],
    page_break: () => [
      this.controls.block({ part: "page-break" }, [new Paragraph({ children: [new PageBreak()] })]),
    ],
    section_break: () => [
      this.controls.block({ break: "" }, [
        new Paragraph({ alignment: AlignmentType.CENTER, children: [new TextRun("* * *")] }),
      ]),
    ],
    caption: (node) => [this.caption(node)],
    credit: (node) => [
      this.controls.block({ part: "credit" }, [
        new Paragraph({ children: this.inlines(node, { block: {}, words: small }) }),
      ]),
    ],
    signposts: (node) => this.signposts(node),
  };

  protected readonly inlineHandlers: InlineHandlers<ParagraphChild, Style> = {
    text: (node, { words }) => textRuns(node, words),
    formula: (node) => {
      const { math, display } = node.attrs as { math: MathElement; display: boolean };
      const said = { math: JSON.stringify(math), display: display ? "" : null };
      return [this.controls.inline(said, [mathOfDocx(math)])];
    },
    hard_break: (_, { words }) => [new TextRun({ ...words, break: 1 })],
    picture: (node, { words }) => [
      this.picture(node, words),
      // Areas of a picture that is a link itself stand behind that link.
      ...(node.marks.some((mark) => mark.type.name === "link") ? [] : this.areasOf(node)),
    ],
    anchor: (node) => {
      const { id, name } = node.attrs as { id: string; name: string };
      const place = this.links.place(id);
      if (place.length > 0) this.controls.say(`anchor-${id}`, name);
      return place;
    },
    cross_reference: (node) => {
      const says = this.wordsOfReference(node, false);
      const { target, form, fallback } = referenceAttrs(node);
      if (says.kind !== "words") return [new TextRun(gapSign)];
      return [this.controls.inline({ reference: form, fallback }, [this.links.jump(target, says.words)])];
    },
    note_reference: (node) => [this.noteReference(node.attrs["note"] as string)],
  };

  constructor(
    chapter: WalkedChapter,
    private readonly writing: BookBeingWritten,
  ) {
    super(chapter);
    this.links = writing.links;
    this.controls = writing.controls;
  }

  wholeChapter(): Block[] {
    const body = this.body(plain);
    // A note that nothing refers to still holds text and links.
    const alone = [...this.notes.values()].filter(({ references }) => references === 0);
    return [...body, ...alone.flatMap(({ node }) => this.noteBlocks(node))];
  }

  protected returnLink({ list, words }: ReturnLink): Block {
    return this.controls.block({ made: "" }, [new Paragraph({ children: [this.links.jump(list, words)] })]);
  }

  private heading(node: Node, level: number): Paragraph {
    const id = node.attrs["id"] as string;
    const words = this.inlines(node, plain);
    if (node.textContent.trim() === "")
      return new Paragraph({ children: [...this.links.place(id), ...words] });
    const number = this.index.places.get(id)?.number;
    const role = this.index.roleOf(this.chapter.at);
    if (level === 0 && role !== "chapter") this.controls.say(`role-${id}`, role);
    const lead = number ? [this.controls.inline({ made: "" }, [new TextRun(`${number} `)])] : [];
    return new Paragraph({
      heading: headings[this.levels.next(level) - 1]!,
      pageBreakBefore: level === 0,
      children: [...this.links.place(id), ...lead, ...words],
    });
  }

  private list(list: Node, level: number): Block[] {
    const { start } = list.attrs as { start?: number };
    const { numbering } = this.writing;
    const reference = start === undefined ? numbering.bullets() : numbering.from(start);
    return list.children.flatMap((item) => {
      const done = item.attrs["done"] as boolean | null;
      const sign =
        done === null
          ? null
          : this.controls.inline({ done: String(done) }, [new TextRun(`${taskSign(done)} `)]);
      const opens = item.firstChild!.type.name === "paragraph";
      const blocks = item.children.flatMap((inner, i): Block[] => {
        if (inner.type.name.endsWith("_list") && inner.type.name !== "definition_list")
          return this.list(inner, Math.min(level + 1, deepestList));
        if (i === 0 && opens)
          return this.block(inner, {
            block: { numbering: { reference, level } },
            words: {},
            ...(sign ? { sign } : {}),
          });
        const set = this.block(inner, { block: { indent: { left: indent * (level + 1) } }, words: {} });
        return [this.controls.block({ item: level }, set)];
      });
      if (opens) return blocks;
      // Its dot or number stands in a line of its own.
      const begins = [...(sign ? [sign] : []), this.controls.inline({ begins: "" }, [])];
      return [new Paragraph({ numbering: { reference, level }, children: begins }), ...blocks];
    });
  }

  private definitions(list: Node): Block[] {
    return list.children.map((part) => {
      const isTerm = part.type.name === "definition_term";
      const inside = isTerm
        ? [
            new Paragraph({
              style: "DefinitionTerm",
              keepNext: true,
              children: this.inlines(part, plain),
            }),
          ]
        : this.blocks(part, { block: { indent: { left: indent * 2 } }, words: {} });
      return this.controls.block({ part: isTerm ? "term" : "definition" }, inside);
    });
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
                  // What may stand in a cell is told too narrowly by the library.
                  children: this.blocks(cell, { block: alignedAs(cell), words: {} }) as Paragraph[],
                }),
            ),
          }),
      ),
    });
  }

  private caption(node: Node): Block {
    const { id, of } = captionAttrs(node);
    const label = this.captionLabel(node);
    const words = new TextRun({ text: `${label ?? ""} `, bold: true });
    const lead = label === null ? [] : [this.controls.inline({ made: "" }, [words])];
    const paragraph = new Paragraph({
      children: [...this.links.place(id), ...lead, ...this.inlines(node, { block: {}, words: small })],
    });
    return this.controls.block({ caption: of }, [paragraph]);
  }

  private signposts(node: Node): Block[] {
    const list = signpostAttrs(node);
    const head = new Paragraph({
      keepNext: true,
      children: [...this.links.place(list.id), new TextRun({ text: list.heading, bold: true })],
    });
    const entries = signpostsOf(list, this.index, this.chapter.at).map(
      ({ id, words, depth }) =>
        new Paragraph({ indent: { left: indent * depth }, children: [this.links.jump(id, words)] }),
    );
    const said = saidOfList(list, (id) => `#${id}`);
    return [this.controls.block(said, [head, ...entries])];
  }

  protected linked(link: LinkAttrs, run: InlineRun, style: Style): ParagraphChild[] {
    const areas = run.nodes.flatMap((node) => this.areasOf(node));
    const target = this.links.target(link.destination);
    if (target === null) return [...run.nodes.flatMap((node) => this.inline(node, style)), ...areas];
    const words = { ...style.words, ...this.links.look(link) };
    const content = run.nodes.flatMap((node) => this.inline(node, { ...style, words }));
    const written = this.links.link(target, link.description, content);
    const kept = this.links.besides(link);
    return [kept ? this.controls.inline(kept, [written]) : written, ...areas];
  }

  private picture(node: Node, look: IRunOptions): ParagraphChild {
    const attrs = pictureAttrs(node);
    const file = attrs.file === null ? undefined : this.writing.pictures.get(attrs.file);
    if (!file) return new TextRun({ ...look, text: pictureWords(attrs) });
    const image = pictureOfDocx(attrs, file, this.writing.book.layout);
    if (attrs.width === null && !attrs.decorative) return image;
    return this.controls.inline({ width: attrs.width, decorative: attrs.decorative ? "" : null }, [image]);
  }

  /** A text document has no areas, so each is a link behind its picture. */
  private areasOf(node: Node): ParagraphChild[] {
    if (node.type.name !== "picture") return [];
    return pictureAttrs(node).hotspots.flatMap((hotspot): ParagraphChild[] => {
      const { destination, description, alt } = hotspot;
      const target = this.links.target(destination);
      if (target === null) return [];
      const link = this.links.link(target, description, [linkedWords(alt)]);
      return [new TextRun(" "), this.controls.inline(saidOfArea(hotspot), [link])];
    });
  }

  private noteReference(id: string): ParagraphChild {
    const note = this.notes.get(id);
    if (!note) return new TextRun(gapSign);
    const known = this.writing.referred.get(id);
    // A footnote is referred to once; further references repeat its number.
    if (known !== undefined) return new SimpleField(`NOTEREF _note-${known} \\f \\h`, String(known));
    const number = this.writing.referred.size + 1;
    this.writing.referred.set(id, number);
    this.writing.footnotes[number] = { children: this.noteBlocks(note.node) };
    return note.references > 1
      ? new Bookmark({ id: `_note-${number}`, children: [new FootnoteReferenceRun(number)] })
      : new FootnoteReferenceRun(number);
  }

  /** The blocks of a note; its sign stands in the paragraph that is the first. */
  private noteBlocks(note: Node): Paragraph[] {
    const place = this.links.place(note.attrs["id"] as string);
    const [first, ...rest] = note.children;
    const opens = first!.type.name === "paragraph" && first!.attrs["align"] === null;
    const line = new Paragraph({ children: [...place, ...(opens ? this.inlines(first!, plain) : [])] });
    const more = (opens ? rest : note.children).flatMap((block) => this.block(block, plain));
    // What may stand in a note is told too narrowly by the library.
    return [line, ...more] as Paragraph[];
  }
}
