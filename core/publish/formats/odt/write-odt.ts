import { strToU8, zipSync, type Zippable } from "fflate";
import type { Node } from "prosemirror-model";
import {
  captionAttrs,
  pictureAttrs,
  pictureWords,
  referenceAttrs,
  signpostAttrs,
  type LinkAttrs,
} from "../../../manuscript/attributes.ts";
import { topOfBook } from "../../../manuscript/book-index.ts";
import { indexOf, usedPictures, type Book } from "../../../manuscript/book.ts";
import type { InlineRun } from "../../../manuscript/links.ts";
import type { MathElement } from "../../../manuscript/math.ts";
import { gapSign } from "../../../manuscript/references.ts";
import type { SetOff } from "../../../manuscript/set-off.ts";
import { signpostsOf, type ReturnLink } from "../../../manuscript/signposts.ts";
import { countHeadRows } from "../../../manuscript/tables.ts";
import {
  ChapterWalk,
  type BlockHandlers,
  type InlineHandlers,
  type WalkedChapter,
} from "../../../manuscript/walk.ts";
import { asFolder, entryDate } from "../../export-folder.ts";
import { saidOfArea, saidOfList, type Said } from "../../said-for-coming-back.ts";
import { taskSign } from "../../task-sign.ts";
import { escapeXml } from "../../xhtml/escape-xml.ts";
import { OdtBeingWritten } from "./odt-being-written.ts";
import { jump, linkTo } from "./odt-links.ts";
import { contentStyles, setOffStyle, stylesXml, writingMode } from "./odt-styles.ts";
import { part, textXml } from "./odt-xml.ts";

const mediaType = "application/vnd.oasis.opendocument.text";

/**
 * Writes a book as an OpenDocument text (1.3) for going on elsewhere: every link with its description, places as
 * bookmarks, notes as footnotes, formulas as objects. With companion files it is a folder in a zip. The same book gives
 * the same bytes.
 * @param name the file's name
 */
export function writeOdt(book: Book, name: string): { bytes: Uint8Array; isFolder: boolean } {
  const index = indexOf(book);
  const used = usedPictures(book);
  const writing = new OdtBeingWritten(
    book,
    index,
    book.pictures.filter(({ id }) => used.has(id)),
  );
  writing.said.say("counts", JSON.stringify(book.conventions));
  const head = writing.section({ made: "" }, [
    `<text:p text:style-name="Title">${writing.place(topOfBook)}${textXml(book.title)}</text:p>`,
    `<text:p text:style-name="Standard">${textXml(book.author)}</text:p>`,
  ]);
  const chapters = book.chapters.flatMap(({ doc }, at) =>
    new OdtWalk({ doc, at, index }, writing).wholeChapter(),
  );
  const content = part(
    "office:document-content",
    `<office:automatic-styles>${contentStyles}${writing.styles.xml}</office:automatic-styles><office:body><office:text>${head}${chapters.join("")}</office:text></office:body>`,
  );
  const files: [path: string, type: string, bytes: Uint8Array][] = [
    ["content.xml", "text/xml", strToU8(content)],
    [
      "styles.xml",
      "text/xml",
      strToU8(part("office:document-styles", stylesXml(book.layout, book.language))),
    ],
    ["meta.xml", "text/xml", strToU8(part("office:document-meta", metaOf(book, writing)))],
    ...writing.files(),
  ];
  return asFolder(book, name, packed(files));
}

function metaOf(book: Book, { said }: OdtBeingWritten): string {
  const own = said.properties.map(
    ({ name, value }) =>
      `<meta:user-defined meta:name="${escapeXml(name)}">${escapeXml(value)}</meta:user-defined>`,
  );
  return `<office:meta><meta:generator>Vennet</meta:generator><dc:title>${escapeXml(book.title)}</dc:title><meta:initial-creator>${escapeXml(book.author)}</meta:initial-creator><dc:creator>${escapeXml(book.author)}</dc:creator><dc:date>${book.modified.replace(/Z$/, "")}</dc:date><dc:language>${escapeXml(book.language)}</dc:language>${own.join("")}</office:meta>`;
}

/** The container (OpenDocument 1.3, part 2, 3): its media type first, as it is. */
function packed(files: readonly [path: string, type: string, bytes: Uint8Array][]): Uint8Array {
  const entries = [["/", mediaType], ...files.map(([path, type]) => [path, type])].map(
    ([path, type]) => `<manifest:file-entry manifest:full-path="${path}" manifest:media-type="${type}"/>`,
  );
  const manifest = `<?xml version="1.0" encoding="UTF-8"?>\n<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" manifest:version="1.3">${entries.join("")}</manifest:manifest>`;
  const out: Zippable = { mimetype: [strToU8(mediaType), { mtime: entryDate, level: 0 }] };
  for (const [path, type, bytes] of files)
    // A folder of its own, as an object is, has an entry and no bytes.
    if (!path.endsWith("/"))
      out[path] = [bytes, { mtime: entryDate, level: type.startsWith("image/") ? 0 : 6 }];
  out["META-INF/manifest.xml"] = [strToU8(manifest), { mtime: entryDate, level: 6 }];
  return zipSync(out);
}

/** What is handed down to a block: the style of its paragraphs, and what stands before its first words. */
interface Style {
  paragraph: string;
  sign?: string;
}

const plain: Style = { paragraph: "Standard" };

class OdtWalk extends ChapterWalk<string, string, Style> {
  /** The direction of the block that is being written, where it is not the book's. */
  private turnedTo: ReturnType<OdtWalk["turned"]> = null;

  protected readonly blockHandlers: BlockHandlers<string, Style> = {
    title: (node) => [this.heading(node, 0)],
    heading: (node) => [this.heading(node, node.attrs["level"] as number)],
    paragraph: (node, { paragraph, sign = "" }) => {
      const align = node.attrs["align"] as "center" | "end" | null;
      const aligned = align === null ? [] : [`fo:text-align="${align}"`];
      return [this.line(paragraph, sign + this.words(node), aligned)];
    },
    blockquote: (node) => {
      const kind = node.attrs["kind"] as SetOff;
      return [this.writing.section({ part: kind }, this.blocks(node, { paragraph: setOffStyle[kind] }))];
    },
    code_block: (node) => {
      const lines = this.line("Preformatted_20_Text", this.inlines(node, { paragraph: "code" }).join(""));
      return [
        this.writing.section({ part: "listing", of: node.attrs["language"] as string | null }, [lines]),
      ];
    },
    bullet_list: (node) => this.list(node, "Bullets", null),
    ordered_list: (node) => this.list(node, "Numbers", node.attrs["start"] as number),
    definition_list: (node) => [
      this.writing.section(
        { part: "definitions" },
        node.children.map((one) => this.definitionPart(one)),
      ),
    ],
    table: (node) => [this.table(node)],
    page_break: () => [this.apart({ part: "page-break" }, "", 'fo:break-before="page"')],
    section_break: () => [this.apart({ break: "" }, "* * *", 'fo:text-align="center"')],
    caption: (node) => {
      const { id, of } = captionAttrs(node);
      const label = this.captionLabel(node);
      const lead = label === null ? "" : this.writing.meta({ made: "" }, `${textXml(label)} `);
      const line = this.line("Small", this.writing.place(id) + lead + this.words(node));
      return [this.writing.section({ caption: of }, [line])];
    },
    credit: (node) => [this.writing.section({ part: "credit" }, [this.line("Small", this.words(node))])],
    signposts: (node) => [this.signposts(node)],
  };

  protected readonly inlineHandlers: InlineHandlers<string, Style> = {
    text: (node, { paragraph }) => {
      const style = this.writing.styles.ofWords(node);
      const text = textXml(node.text!, paragraph === "code");
      return [style === null ? text : `<text:span text:style-name="${style}">${text}</text:span>`];
    },
    hard_break: () => ["<text:line-break/>"],
    picture: (node) => [
      this.picture(node),
      // Areas of a picture that is a link itself stand behind that link.
      ...(node.marks.some((mark) => mark.type.name === "link") ? [] : this.areasOf(node)),
    ],
    formula: (node) => [
      this.writing.formula(node.attrs["math"] as MathElement, node.attrs["display"] as boolean),
    ],
    anchor: (node) => {
      const { id, name } = node.attrs as { id: string; name: string };
      const place = this.writing.place(id);
      if (place !== "") this.writing.said.say(`anchor-${id}`, name);
      return [place];
    },
    cross_reference: (node) => {
      const says = this.wordsOfReference(node, false);
      const { target, form, fallback } = referenceAttrs(node);
      return [
        says.kind === "words"
          ? this.writing.meta({ reference: form, fallback }, jump(target, says.words))
          : gapSign,
      ];
    },
    note_reference: (node) => [this.noteReference(node.attrs["note"] as string)],
  };

  constructor(
    chapter: WalkedChapter,
    private readonly writing: OdtBeingWritten,
  ) {
    super(chapter);
  }

  wholeChapter(): string[] {
    const body = this.body(plain);
    // A note that nothing refers to still holds text and links.
    const alone = [...this.notes.values()].filter(({ references }) => references === 0);
    return [...body, ...alone.flatMap(({ node }) => this.noteBlocks(node))];
  }

  protected override block(node: Node, style: Style): string[] {
    const around = this.turnedTo;
    if (node.isTextblock) this.turnedTo = this.turned(node);
    const written = super.block(node, style);
    this.turnedTo = around;
    return written;
  }

  /** A paragraph of a style, in the direction of its words. @param more what of it is not as its style says */
  private line(style: string, words: string, more: string[] = []): string {
    return `<text:p text:style-name="${this.styled(style, more)}">${words}</text:p>`;
  }

  /** A line that is none of the author's words. */
  private apart(said: Said, words: string, property: string): string {
    return this.writing.section(said, [this.line("Standard", words, [property])]);
  }

  private styled(style: string, more: string[] = []): string {
    // That of an aligned cell is none that another may be made of.
    const isOwn = this.turnedTo === null || /^P\d/.test(style);
    const all = isOwn ? more : [...more, writingMode(this.turnedTo!)];
    return all.length === 0 ? style : this.writing.styles.ofParagraph(style, all.join(" "));
  }

  private words(block: Node): string {
    return this.inlines(block, plain).join("");
  }

  protected returnLink({ list, words }: ReturnLink): string {
    return this.writing.section({ made: "" }, [this.line("Small", jump(list, words))]);
  }

  private heading(node: Node, level: number): string {
    const id = node.attrs["id"] as string;
    const words = this.words(node);
    const place = this.writing.place(id);
    if (node.textContent.trim() === "") return this.line("Standard", place + words);
    const role = this.index.roleOf(this.chapter.at);
    if (level === 0 && role !== "chapter") this.writing.said.say(`role-${id}`, role);
    const number = this.index.places.get(id)?.number;
    const lead = number ? this.writing.meta({ made: "" }, `${textXml(number)} `) : "";
    const shown = this.levels.next(level);
    return `<text:h text:style-name="${this.styled(`Heading_20_${shown}`)}" text:outline-level="${shown}">${place}${lead}${words}</text:h>`;
  }

  /**
   * A list. Its items hold paragraphs and lists alone (part 3, 5.3.3): whatever else stands in one, and what follows that in
   * it, stands behind the list, which goes on after it.
   */
  private list(list: Node, style: string, start: number | null): string[] {
    const parts: string[] = [];
    let items: string[] = [];
    const close = (): void => {
      const goesOn = parts.length > 0 ? ' text:continue-numbering="true"' : "";
      if (items.length > 0)
        parts.push(`<text:list text:style-name="${style}"${goesOn}>${items.join("")}</text:list>`);
      items = [];
    };
    list.children.forEach((item, i) => {
      const first = item.children.findIndex((inner) => !isSimple(inner));
      const within = first === -1 ? item.children : item.children.slice(0, first);
      const done = item.attrs["done"] as boolean | null;
      const sign = done === null ? "" : this.writing.meta({ done: String(done) }, `${taskSign(done)} `);
      const isSigned = within[0]?.type.name === "paragraph";
      const inside = within.flatMap((inner, n) =>
        this.block(inner, n === 0 && isSigned ? { ...plain, sign } : plain),
      );
      const begins = isSigned ? inside : [this.line("Standard", sign), ...inside];
      const from = i === 0 && start !== null ? ` text:start-value="${start}"` : "";
      items.push(`<text:list-item${from}>${begins.join("")}</text:list-item>`);
      if (first === -1) return;
      close();
      const behind = item.children.slice(first).flatMap((inner) => this.block(inner, plain));
      parts.push(this.writing.section({ item: 0 }, behind));
    });
    close();
    return parts;
  }

  private definitionPart(one: Node): string {
    return one.type.name === "definition_term"
      ? this.writing.section({ part: "term" }, [this.line("Term", this.words(one))])
      : this.writing.section({ part: "definition" }, this.blocks(one, { paragraph: "Meaning" }));
  }

  private table(node: Node): string {
    const heads = countHeadRows(node);
    /** In each column, over how many rows a cell from above still reaches. */
    const reaching = new Map<number, number>();
    let columns = 0;
    const rows = node.children.map((row, i) => {
      let cells = "";
      let at = 0;
      const covered = (): void => {
        for (let left = reaching.get(at) ?? 0; left > 0; left = reaching.get(at) ?? 0) {
          reaching.set(at++, left - 1);
          cells += "<table:covered-table-cell/>";
        }
      };
      for (const cell of row.children) {
        covered();
        const { colspan, rowspan } = cell.attrs as { colspan: number; rowspan: number };
        cells += this.cell(cell, i < heads);
        cells += "<table:covered-table-cell/>".repeat(colspan - 1);
        for (let n = 0; n < colspan; n++) reaching.set(at++, rowspan - 1);
      }
      covered();
      columns = Math.max(columns, at);
      return `<table:table-row>${cells}</table:table-row>`;
    });
    const head =
      heads > 0 ? `<table:table-header-rows>${rows.slice(0, heads).join("")}</table:table-header-rows>` : "";
    return `<table:table><table:table-column table:number-columns-repeated="${Math.max(1, columns)}"/>${head}${rows.slice(heads).join("")}</table:table>`;
  }

  private cell(cell: Node, isHead: boolean): string {
    const { colspan, rowspan, align } = cell.attrs as {
      colspan: number;
      rowspan: number;
      align: string | null;
    };
    const usual = isHead ? "Table_20_Heading" : "Standard";
    const paragraph =
      align === null ? usual : this.writing.styles.ofParagraph(usual, `fo:text-align="${align}"`);
    const spans =
      (colspan > 1 ? ` table:number-columns-spanned="${colspan}"` : "") +
      (rowspan > 1 ? ` table:number-rows-spanned="${rowspan}"` : "");
    return `<table:table-cell table:style-name="Cell" office:value-type="string"${spans}>${this.blocks(cell, { paragraph }).join("")}</table:table-cell>`;
  }

  private signposts(node: Node): string {
    const list = signpostAttrs(node);
    const head = this.line("Standard", `${this.writing.place(list.id)}${textXml(list.heading)}`);
    const entries = signpostsOf(list, this.index, this.chapter.at).map(({ id, words, depth }) => {
      const style =
        depth === 0 ? "Standard" : this.writing.styles.ofParagraph("Standard", `fo:margin-left="${depth}cm"`);
      return this.line(style, jump(id, words));
    });
    const said = saidOfList(list, (id) => `#${id}`);
    return this.writing.section(said, [head, ...entries]);
  }

  protected linked(link: LinkAttrs, run: InlineRun): string[] {
    const areas = run.nodes.flatMap((node) => this.areasOf(node));
    const target = this.writing.links.target(link.destination);
    const content = run.nodes.flatMap((node) => this.inline(node, plain)).join("");
    if (target === null) return [content, ...areas];
    const look = this.writing.links.lookOf(link);
    const style = look === null ? null : this.writing.styles.ofLink(look);
    const written = linkTo(target, link.description, content, style);
    const kept = this.writing.links.besides(link);
    return [kept ? this.writing.meta(kept, written) : written, ...areas];
  }

  private picture(node: Node): string {
    const attrs = pictureAttrs(node);
    const frame = this.writing.picture(attrs);
    if (frame === null) return textXml(pictureWords(attrs));
    if (attrs.width === null && !attrs.decorative) return frame;
    const said: Said = { width: attrs.width, decorative: attrs.decorative ? "" : null };
    return this.writing.meta(said, frame);
  }

  /** Areas are links behind their picture, as in other text documents. */
  private areasOf(node: Node): string[] {
    if (node.type.name !== "picture") return [];
    return pictureAttrs(node).hotspots.flatMap((hotspot): string[] => {
      const target = this.writing.links.target(hotspot.destination);
      if (target === null) return [];
      const link = linkTo(target, hotspot.description, textXml(hotspot.alt), null);
      return [` ${this.writing.meta(saidOfArea(hotspot), link)}`];
    });
  }

  private noteReference(id: string): string {
    const note = this.notes.get(id);
    if (!note) return gapSign;
    const number = this.writing.noteNumber(id);
    const named = ' text:note-class="footnote"';
    if (!number.isFirst)
      return `<text:note-ref${named} text:reference-format="text" text:ref-name="sign-${id}">${number.number}</text:note-ref>`;
    const body = this.inNote(id, () => this.noteBlocks(note.node)).join("");
    return `<text:note text:id="sign-${id}"${named}><text:note-citation>${number.number}</text:note-citation><text:note-body>${body}</text:note-body></text:note>`;
  }

  private noteBlocks(note: Node): string[] {
    const place = this.writing.place(note.attrs["id"] as string);
    const [first, ...rest] = note.children;
    const opens =
      first!.type.name === "paragraph"
        ? this.block(first!, { ...plain, sign: place })
        : [...(place === "" ? [] : [this.line("Standard", place)]), ...this.block(first!, plain)];
    return [...opens, ...rest.flatMap((block) => this.block(block, plain))];
  }
}

/** Whether an item of a list may hold a block. */
function isSimple(block: Node): boolean {
  const { name } = block.type;
  if (name === "bullet_list" || name === "ordered_list")
    return block.children.every((item) => item.children.every(isSimple));
  return name === "paragraph";
}
