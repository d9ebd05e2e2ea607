import type { List, PhrasingContent, RootContent, Table, TableCell, TableRow } from "mdast";
import { gfmToMarkdown } from "mdast-util-gfm";
import { toMarkdown } from "mdast-util-to-markdown";
import type { Node } from "prosemirror-model";
import { stringify } from "yaml";
import type { Destination } from "../../../destination/kinds/kinds.ts";
import { topOfBook, type BookIndex } from "../../../manuscript/book-index.ts";
import { indexOf, pictureSuffix, usedPictures, type Book } from "../../../manuscript/book.ts";
import { languageOf } from "../../../manuscript/language.ts";
import { linkUses, runText, type InlineRun } from "../../../manuscript/links.ts";
import type { MathElement } from "../../../manuscript/math.ts";
import { gapSign } from "../../../manuscript/references.ts";
import {
  captionAttrs,
  pictureAttrs,
  pictureWords,
  referenceAttrs,
  signpostAttrs,
  type LinkAttrs,
  type PictureAttrs,
} from "../../../manuscript/attributes.ts";
import type { SetOff } from "../../../manuscript/set-off.ts";
import { signpostsOf, type ReturnLink } from "../../../manuscript/signposts.ts";
import {
  ChapterWalk,
  type BlockHandlers,
  type InlineHandlers,
  type WalkedChapter,
} from "../../../manuscript/walk.ts";
import { ofWordMarks, type ByWordMark } from "../../../manuscript/word-marks.ts";
import { asAttributes, saidOfArea, saidOfList, saidOfLook } from "../../said-for-coming-back.ts";
import { mathXhtml } from "../../xhtml/math-xhtml.ts";
import { asFolder } from "../../export-folder.ts";
import { hrefOfTravel, travel } from "../../travel.ts";
import { travellingFiles, type TravellingFile } from "../../travelling-files.ts";
import { addressesInText } from "./addresses-in-text.ts";
import {
  html,
  inAttribute,
  inElement,
  jump,
  made,
  paragraph,
  placedAt,
  shownAs,
  signsAsNumbers,
  within,
  type Wrap,
} from "./written-as-html.ts";

/** The folder of an export that holds its pictures. */
const picturesFolder = "pictures";

/**
 * Writes a book as Markdown (CommonMark, GFM tables and footnotes) for going on elsewhere: every link with its
 * description, places as HTML anchors, notes as footnotes. With pictures or companion files it is a folder in a zip.
 * The same book gives the same bytes.
 * @param name the file's name
 */
export function writeMarkdown(book: Book, name: string): { bytes: Uint8Array; isFolder: boolean } {
  const used = usedPictures(book);
  const shown = book.pictures.filter(({ id }) => used.has(id));
  const pathOf = ({ id, mediaType }: (typeof shown)[number]): string =>
    `${picturesFolder}/${id}.${pictureSuffix[mediaType]}`;
  const index = indexOf(book);
  const writing: BookBeingWritten = {
    index,
    files: travellingFiles(book),
    pictures: new Map(shown.map((picture) => [picture.id, pathOf(picture)])),
    targets: new Set(
      book.chapters.flatMap(({ doc }) =>
        linkUses(doc).flatMap(({ destination: to }) => (to.kind === "place" ? [to.target] : [])),
      ),
    ),
    placed: new Set(),
  };
  const chapters = book.chapters.flatMap(({ doc }, at) =>
    new MarkdownWalk({ doc, at, index }, writing).wholeChapter(),
  );
  const children = writing.targets.has(topOfBook)
    ? placedAt(placeIn(writing, topOfBook), chapters)
    : chapters;
  const about = stringify({
    title: book.title,
    author: book.author,
    language: book.language,
    counts: book.conventions,
  });
  const text = `---\n${about}---\n\n${toMarkdown(
    { type: "root", children },
    {
      extensions: [gfmToMarkdown(), addressesInText],
      bullet: "-",
      emphasis: "*",
      rule: "*",
      listItemIndent: "one",
    },
  )}`;
  const pictures = shown.map((picture): [string, Uint8Array] => [pathOf(picture), picture.bytes]);
  return asFolder(book, name, new TextEncoder().encode(text), pictures);
}

/** What the chapters of a book that is written share. */
interface BookBeingWritten {
  readonly index: BookIndex;
  readonly files: ReadonlyMap<string, TravellingFile>;
  /** The paths of the pictures that the text shows, by their files' ids. */
  readonly pictures: ReadonlyMap<string, string>;
  /** The places to which a link of the author leads. */
  readonly targets: ReadonlySet<string>;
  readonly placed: Set<string>;
}

/** An anchor of HTML, since Markdown has none; an id belongs to the first place that has it. */
function placeIn({ placed }: BookBeingWritten, id: string, name?: string): PhrasingContent[] {
  if (placed.has(id)) return [];
  placed.add(id);
  const called = name === undefined ? "" : ` data-anchor="${inAttribute(name)}"`;
  return [html(`<a id="${id}"${called}></a>`)];
}

const wordMarks: ByWordMark<Wrap> = {
  code: (inner) => inner.map((one) => (one.type === "text" ? { type: "inlineCode", value: one.value } : one)),
  emphasis: (children) => [{ type: "emphasis", children }],
  strong: (children) => [{ type: "strong", children }],
  strike: (children) => [{ type: "delete", children }],
  superscript: inElement("sup"),
  subscript: inElement("sub"),
  underline: inElement("u"),
  small_caps: inElement('span class="small-caps"'),
};

class MarkdownWalk extends ChapterWalk<RootContent, PhrasingContent, void> {
  protected readonly blockHandlers: BlockHandlers<RootContent, void> = {
    title: (node) => [this.heading(node, 0)],
    heading: (node) => [this.heading(node, node.attrs["level"] as number)],
    paragraph: (node) => {
      const align = node.attrs["align"] as "center" | "end" | null;
      const words = paragraph(this.inlines(node));
      return align === null ? [words] : within(`div align="${align === "end" ? "right" : align}"`, [words]);
    },
    blockquote: (node) => {
      const blocks = this.blocks(node);
      const kind = node.attrs["kind"] as SetOff;
      return kind === "quotation"
        ? [{ type: "blockquote", children: blocks as never[] }]
        : within(`div data-part="${kind}"`, blocks);
    },
    code_block: (node) => [this.code(node)],
    bullet_list: (node) => [this.list(node, null)],
    ordered_list: (node) => [this.list(node, node.attrs["start"] as number)],
    definition_list: (node) => {
      const parts = node.children.flatMap((part) =>
        part.type.name === "definition_term"
          ? within("dt", [paragraph(this.inlines(part))])
          : within("dd", this.blocks(part)),
      );
      return within("dl", parts);
    },
    table: (node) => [this.table(node)],
    page_break: () => [html('<div data-part="page-break"></div>')],
    section_break: () => [{ type: "thematicBreak" }],
    caption: (node) => [this.caption(node)],
    credit: (node) => [paragraph(inElement('span data-part="credit"')(this.inlines(node)))],
    signposts: (node) => this.signposts(node),
  };

  protected readonly inlineHandlers: InlineHandlers<PhrasingContent, void> = {
    text: (node) => {
      const text: PhrasingContent = { type: "text", value: node.text! };
      const shown = ofWordMarks(node, wordMarks).reduce((inner, wrap) => wrap(inner), [
        text,
      ] as PhrasingContent[]);
      const language = languageOf(node);
      return language === null ? shown : inElement(`span lang="${language}"`)(shown);
    },
    hard_break: () => [{ type: "break" }],
    formula: (node) => [
      html(mathXhtml(node.attrs["math"] as MathElement, node.attrs["display"] as boolean, signsAsNumbers)),
    ],
    picture: (node) => {
      // Areas of a picture that is a link itself stand behind that link.
      const isLinked = node.marks.some((mark) => mark.type.name === "link");
      return [this.picture(pictureAttrs(node)), ...(isLinked ? [] : this.areasOf(node))];
    },
    anchor: (node) => this.place(node.attrs["id"] as string, node.attrs["name"] as string),
    cross_reference: (node) => {
      const says = this.wordsOfReference(node, false);
      const { target, form, fallback } = referenceAttrs(node);
      if (says.kind !== "words") return [{ type: "text", value: gapSign }];
      const ownFallback = fallback === "text" ? "" : ` data-fallback="${fallback}"`;
      return inElement(`a href="#${target}" data-reference="${form}"${ownFallback}`)([
        { type: "text", value: says.words },
      ]);
    },
    note_reference: (node) => {
      const id = node.attrs["note"] as string;
      return this.index.places.get(id)?.kind === "note"
        ? [{ type: "footnoteReference", identifier: id, label: id }]
        : [{ type: "text", value: gapSign }];
    },
  };

  constructor(
    chapter: WalkedChapter,
    private readonly book: BookBeingWritten,
  ) {
    super(chapter);
  }

  wholeChapter(): RootContent[] {
    const notes = this.chapter.doc.children.filter(({ type }) => type.name === "note");
    return [...this.body(), ...notes.map((note) => this.note(note))];
  }

  private note(node: Node): RootContent {
    const id = node.attrs["id"] as string;
    const blocks = this.blocks(node);
    const children = this.book.targets.has(id) ? placedAt(this.place(id), blocks) : blocks;
    return { type: "footnoteDefinition", identifier: id, label: id, children: children as never[] };
  }

  protected returnLink({ list, words }: ReturnLink): RootContent {
    return paragraph(made([jump(list, words)]));
  }

  private heading(node: Node, level: number): RootContent {
    const id = node.attrs["id"] as string;
    const words = this.inlines(node);
    if (node.textContent.trim() === "") return paragraph([...this.place(id), ...words]);
    const number = this.index.places.get(id)?.number;
    const lead = number ? made([{ type: "text", value: `${number} ` }]) : [];
    const depth = this.levels.next(level) as 1 | 2 | 3 | 4 | 5;
    const said = level === 0 ? this.index.roleOf(this.chapter.at) : "chapter";
    const role = said === "chapter" ? [] : [html(`<span data-role="${said}">`), html("</span>")];
    return { type: "heading", depth, children: [...this.place(id), ...role, ...lead, ...words] };
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
        checked: item.attrs["done"] as boolean | null,
        children: this.taskBlocks(item) as never[],
      })),
    };
  }

  /** What is done or to do is so of a paragraph. */
  private taskBlocks(item: Node): RootContent[] {
    const blocks = this.blocks(item);
    return item.attrs["done"] !== null && blocks[0]?.type !== "paragraph"
      ? [paragraph([]), ...blocks]
      : blocks;
  }

  /** Code with links in it is written as text, since nothing in a code block is a link. */
  private code(node: Node): RootContent {
    const isPlain = node.children.every((inline) => inline.isText && inline.marks.length === 0);
    const lang = node.attrs["language"] as string | null;
    return isPlain ? { type: "code", lang, value: node.textContent } : paragraph(this.inlines(node));
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
    if (block.type.name === "caption") return this.captionInlines(block);
    const id = block.type.name === "heading" ? (block.attrs["id"] as string) : null;
    if (block.isTextblock) return [...(id === null ? [] : this.place(id)), ...this.inlines(block)];
    return block.children.flatMap((inner, i) => [
      ...(i > 0 ? [html("<br>") as PhrasingContent] : []),
      ...this.inlinesUnder(inner),
    ]);
  }

  private caption(node: Node): RootContent {
    return paragraph(this.captionInlines(node));
  }

  private captionInlines(node: Node): PhrasingContent[] {
    const id = node.attrs["id"] as string;
    const label = this.captionLabel(node);
    const lead: PhrasingContent[] =
      label === null
        ? []
        : made([
            { type: "strong", children: [{ type: "text", value: label }] },
            { type: "text", value: " " },
          ]);
    const kind = html(`<span data-caption="${captionAttrs(node).of}">`);
    return [kind, ...this.place(id), ...lead, ...this.inlines(node), html("</span>")];
  }

  private signposts(node: Node): RootContent[] {
    const list = signpostAttrs(node);
    const entries = signpostsOf(list, this.index, this.chapter.at);
    const heading: PhrasingContent[] =
      list.heading === "" ? [] : [{ type: "strong", children: [{ type: "text", value: list.heading }] }];
    const items = entries.map(({ id, words, depth }): PhrasingContent[] => [
      { type: "text", value: "\u2003".repeat(depth) },
      jump(id, words),
    ]);
    const shown = paragraph([
      ...this.place(list.id),
      ...heading,
      ...items.flatMap((item): PhrasingContent[] => [{ type: "break" }, ...item]),
    ]);
    return within(`div${asAttributes(saidOfList(list, (id) => `#${id}`))}`, [shown]);
  }

  protected linked(link: LinkAttrs, run: InlineRun): PhrasingContent[] {
    const children = run.nodes.flatMap((node) => this.inline(node));
    const url = this.href(link.destination);
    const areas = run.nodes.flatMap((node) => this.areasOf(node));
    if (url === null) return [...children, ...areas];
    const more = this.besides(link);
    // What reads as an address would be a link of its own within one that is HTML.
    if (more === "" || /@|:\/\/|www\./i.test(runText(run)))
      return [{ type: "link", url, title: link.description, children: children as never[] }, ...areas];
    const title = link.description === null ? "" : ` title="${inAttribute(link.description)}"`;
    return [...inElement(`a href="${inAttribute(url)}"${title}${more}`)(children), ...areas];
  }

  /** What a link has that Markdown has no signs for, as attributes of HTML. */
  private besides(link: LinkAttrs): string {
    const file = this.book.files.get("file" in link.destination ? link.destination.file : "");
    const isRenamed = file !== undefined && !file.path.endsWith(`/${file.name}`);
    const said = {
      file: isRenamed ? file.name : null,
      look: saidOfLook(link),
      "new-window": link.newWindow ? "" : null,
    };
    return asAttributes(said, inAttribute);
  }

  private picture(picture: PictureAttrs): PhrasingContent {
    const path = picture.file === null ? undefined : this.book.pictures.get(picture.file);
    return path === undefined
      ? { type: "text", value: pictureWords(picture) }
      : shownAs(picture) === ""
        ? { type: "image", url: path, alt: picture.alt }
        : html(`<img src="${inAttribute(path)}" alt="${inAttribute(picture.alt)}"${shownAs(picture)}>`);
  }

  /** Markdown has no areas, so each is a link behind its picture. */
  private areasOf(node: Node): PhrasingContent[] {
    if (node.type.name !== "picture") return [];
    return pictureAttrs(node).hotspots.flatMap((hotspot): PhrasingContent[] => {
      const { destination, description, alt } = hotspot;
      const url = this.href(destination);
      if (url === null) return [];
      const title = description === null ? "" : ` title="${inAttribute(description)}"`;
      const area = asAttributes(saidOfArea(hotspot), inAttribute);
      return [
        { type: "text", value: " " },
        ...inElement(`a href="${inAttribute(url)}"${title}${area}`)([{ type: "text", value: alt }]),
      ];
    });
  }

  private href(destination: Destination): string | null {
    return hrefOfTravel(travel(destination, this.index, this.book.files, true), ({ id }) => `#${id}`);
  }

  private place(id: string, name?: string): PhrasingContent[] {
    return placeIn(this.book, id, name);
  }
}
