import type { Node } from "prosemirror-model";
import type { Destination } from "../../../destination/kinds/kinds.ts";
import type { CaptionedBlock } from "../../../manuscript/captions.ts";
import { chapterTitle } from "../../../manuscript/chapter.ts";
import { hotspotBox } from "../../../manuscript/hotspot.ts";
import { runText, type InlineRun } from "../../../manuscript/links.ts";
import { languageOf } from "../../../manuscript/language.ts";
import { wordsOfMath, type MathElement } from "../../../manuscript/math.ts";
import { referenceId, type NumberedNote } from "../../../manuscript/notes.ts";
import { gapSign } from "../../../manuscript/references.ts";
import {
  pictureAttrs,
  pictureWords,
  referenceAttrs,
  signpostAttrs,
  type LinkAttrs,
} from "../../../manuscript/attributes.ts";
import type { SetOff } from "../../../manuscript/set-off.ts";
import { signpostsOf, type ReturnLink } from "../../../manuscript/signposts.ts";
import {
  ChapterWalk,
  type BlockHandlers,
  type InlineHandlers,
  type WalkedChapter,
} from "../../../manuscript/walk.ts";
import { ofWordMarks } from "../../../manuscript/word-marks.ts";
import { returnName } from "../../../manuscript/return-name.ts";
import { taskSign } from "../../task-sign.ts";
import { travel } from "../../travel.ts";
import type { BookBeingSet, MarkedLink } from "./book-being-set.ts";
import { breakable } from "./breakable.ts";
import { lineInside } from "./column-widths.ts";
import { withoutDeepNests } from "./deep-nests.ts";
import { withEndsOfLinksKept } from "./ends-of-links.ts";
import { withWideWordsParted } from "./wide-words.ts";
import { anchorsIn, placedInWords, withAnchorsHeld, withoutAnchors } from "./held-anchors.ts";
import { sizeOfHeading } from "./heading-size.ts";
import { wordsAndHost } from "./link-name.ts";
import { setTable } from "./set-table.ts";
import { inParagraphs, withPicturesInLines } from "./pictures-in-lines.ts";
import { setMarks } from "./set-marks.ts";
import { withTabsSpaced } from "./tabs.ts";
import { typesetLanguage } from "./typeset-language.ts";
import type {
  SetBlock,
  SetCaption,
  SetChapter,
  SetDefinition,
  SetInline,
  SetNote,
  SetTextLink,
} from "./set-data.ts";

interface Style {
  /** Whether web addresses may be written out: a heading is repeated elsewhere. */
  mayPrint: boolean;
}

/** How deep a note lies: what it stands in may be deep itself. */
const depthOfNotes = 4;
const plain: Style = { mayPrint: true };
const gap: SetInline = { kind: "text", words: gapSign, marks: ["strong"] };

/** Writes a chapter as the data that the typesetter's template reads. */
export class TypesetWalk extends ChapterWalk<SetBlock, SetInline, Style> {
  private cellsOpen = 0;
  /** How wide the lines are that are being set, in sizes of the text's letters. */
  private line: number;

  protected readonly blockHandlers: BlockHandlers<SetBlock, Style> = {
    title: (node) => [this.heading(node, 0)],
    heading: (node) => [this.heading(node, node.attrs["level"] as number)],
    paragraph: (node) => {
      const align = node.attrs["align"] as "center" | "end" | null;
      const aligned = align === null ? {} : { align };
      return inParagraphs(this.words(node)).map((content) => ({ kind: "paragraph", content, ...aligned }));
    },
    blockquote: (node) => [
      { kind: "quote", look: node.attrs["kind"] as SetOff, content: this.blocks(node, plain) },
    ],
    code_block: (node) => [{ kind: "listing", content: withTabsSpaced(this.words(node)) }],
    bullet_list: (node) => {
      const marked = node.children.every((item) => item.attrs["done"] !== null);
      return [{ kind: "bullets", items: this.items(node), marked }];
    },
    ordered_list: (node) => [
      { kind: "numbers", start: node.attrs["start"] as number, items: this.items(node) },
    ],
    definition_list: (node) => [{ kind: "definitions", entries: this.definitions(node) }],
    table: (node) => [setTable(node, this.line, (cell, line) => this.inCell(cell, line))],
    page_break: () => [{ kind: "page-break" }],
    section_break: () => [{ kind: "section-break" }],
    caption: (node) => [this.caption(node)],
    credit: (node) => [{ kind: "credit", content: this.words(node) }],
    signposts: (node) => [this.signposts(node)],
  };

  protected readonly inlineHandlers: InlineHandlers<SetInline, Style> = {
    text: (node) => {
      const shown = ofWordMarks(node, setMarks);
      const tag = languageOf(node);
      const language = tag === null ? {} : { language: { ...typesetLanguage(tag), tag } };
      return breakable(node.text!).flatMap((words, i): SetInline[] => [
        ...(i > 0 ? [{ kind: "may-break" } as const] : []),
        {
          kind: "text",
          words,
          ...(shown.length > 0 ? { marks: shown } : {}),
          ...language,
        },
      ]);
    },
    hard_break: () => [{ kind: "break" }],
    formula: (node) => {
      const math = node.attrs["math"] as MathElement;
      const alt = wordsOfMath(math);
      // Of one with nothing in it there is nothing to set, nor to say.
      if (alt.trim() === "") return [];
      return [{ kind: "formula", math, alt, display: node.attrs["display"] as boolean }];
    },
    picture: (node) => [this.picture(node)],
    anchor: (node) => this.anchorHere(node.attrs["id"] as string),
    cross_reference: (node) => [this.crossReference(node)],
    note_reference: (node) => this.noteReference(node.attrs["note"] as string),
  };

  constructor(
    chapter: WalkedChapter,
    private readonly book: BookBeingSet,
  ) {
    super(chapter);
    this.line = book.line;
  }

  wholeChapter(): SetChapter {
    const { doc } = this.chapter;
    const blocks = this.body(plain);
    const { notesAt } = this.index.conventions;
    // At the foot of pages, a note that nothing refers to still holds text and links: it is set at the chapter's end.
    const atEnd = [...this.notes.values()].filter(
      ({ references }) => notesAt === "chapter" || (notesAt === "page" && references === 0),
    );
    if (atEnd.length > 0) blocks.push({ kind: "notes", notes: atEnd.map((note) => this.note(note)) });
    return { title: chapterTitle(doc), blocks: withoutDeepNests(blocks) };
  }

  /** All notes of the chapter, for the end of the book. */
  allNotes(): SetNote[] {
    return [...this.notes.values()].map((note) => this.note(note));
  }

  private note(note: NumberedNote): SetNote {
    const label = this.label(note.id);
    const inside = (): SetBlock[] => this.withLines(this.book.line, () => this.blocks(note.node, plain));
    const content = this.inNote(note.id, () => withoutDeepNests(inside(), depthOfNotes));
    // A place of its own above a list would lie on the line before it.
    const isWithin = label !== null && content[0]?.kind !== "paragraph" && placedInWords(content, label);
    return {
      number: this.index.places.get(note.id)!.number,
      label: isWithin ? null : label,
      content,
      returns: this.returnsOf(note),
    };
  }

  /** The ways back from a note, one for each reference to it. */
  private returnsOf({ id, references }: NumberedNote): SetTextLink[] {
    const { returnWords } = this.index.conventions;
    return Array.from({ length: references }, (_, i) => {
      const name = returnName(this.index, i + 1, references) ?? returnWords;
      return { kind: "text-link", words: returnWords, url: this.toPlace(referenceId(id, i + 1), name) };
    });
  }

  protected override block(node: Node, style: Style): SetBlock[] {
    const direction = this.turned(node);
    const keep = this.calledIn(node);
    const set = this.withLines(lineInside(node, this.line), () => super.block(node, style));
    return set.map((block) => ({
      ...block,
      ...(direction === null ? {} : { direction }),
      ...(keep.length === 0 ? {} : { keep }),
    }));
  }

  /** The notes at the foot of its page that a paragraph calls. */
  private calledIn(node: Node): string[] {
    if (this.index.conventions.notesAt !== "page" || node.type.name !== "paragraph") return [];
    return node.children
      .filter(({ type }) => type.name === "note_reference")
      .map(({ attrs }) => attrs["note"] as string);
  }

  protected override captioned({ node, caption, captionFirst }: CaptionedBlock): SetBlock[] {
    if (!caption) return this.block(node, plain);
    const body = this.block(node, plain);
    return [{ kind: "captioned", body, caption: this.caption(caption), first: captionFirst }];
  }

  private caption(node: Node): SetCaption {
    const id = node.attrs["id"] as string;
    const content = this.words(node);
    return { kind: "caption", lead: this.captionLabel(node), content: [...this.anchorHere(id), ...content] };
  }

  protected returnLink({ words, list }: ReturnLink): SetBlock {
    return { kind: "return", words, url: this.toPlace(list, words) };
  }

  private items(list: Node): SetBlock[][] {
    return list.children.map((item) => {
      const blocks = this.blocks(item, plain);
      const done = item.attrs["done"] as boolean | null;
      if (done === null) return blocks;
      const sign: SetInline = { kind: "task", sign: taskSign(done), done };
      const [first, ...rest] = blocks;
      return first?.kind === "paragraph"
        ? [{ ...first, content: [sign, ...first.content] }, ...rest]
        : [{ kind: "paragraph", content: [sign] }, ...blocks];
    });
  }

  /** The terms with what each means; one with several meanings has them in a row. */
  private definitions(list: Node): SetDefinition[] {
    const entries: SetDefinition[] = [];
    let isOpen = false;
    for (const part of list.children) {
      const isTerm = part.type.name === "definition_term";
      if (isTerm || !isOpen) entries.push({ term: [], meaning: [] });
      isOpen = true;
      const entry = entries.at(-1)!;
      if (isTerm) entry.term = this.words(part);
      else entry.meaning.push(...this.blocks(part, plain));
    }
    return entries;
  }

  private words(block: Node): SetInline[] {
    const isCode = block.type.name === "code_block";
    const words = withWideWordsParted(this.inLines(block, plain), this.line, isCode);
    return withAnchorsHeld(withEndsOfLinksKept(words));
  }

  private heading(node: Node, level: number): SetBlock {
    const id = node.attrs["id"] as string;
    const words = this.inLines(node, { mayPrint: false });
    // A heading without words, of which a picture's are none, has no place in an outline (ISO 14289-1); it stays a landing place.
    if (this.index.places.get(id)?.words.trim() === "")
      return { kind: "paragraph", content: [...this.anchorHere(id), ...words] };
    const shown = this.levels.next(level);
    const number = this.index.places.get(id)?.number ?? null;
    // The contents list repeats a heading's words, and no place can be set twice.
    for (const place of anchorsIn(words)) this.hold(place, id);
    const part = level === 0 && this.index.parts.has(this.chapter.at);
    const line = this.book.line / sizeOfHeading(shown, part);
    const content = withEndsOfLinksKept(withWideWordsParted(withoutAnchors(words), line));
    return { kind: "heading", level: shown, label: this.label(id), number, content, part };
  }

  private signposts(node: Node): SetBlock {
    const list = signpostAttrs(node);
    const entries = signpostsOf(list, this.index, this.chapter.at).map(({ id, words, depth }) => ({
      depth,
      words,
      page: this.pageOf(id),
      url: this.toPlace(id, words, list.id),
    }));
    return { kind: "signposts", label: this.label(list.id), heading: list.heading, entries };
  }

  private inCell(cell: Node, line: number): SetBlock[] {
    this.cellsOpen++;
    const content = this.withLines(line, () => this.blocks(cell, plain));
    this.cellsOpen--;
    return content;
  }

  private withLines<T>(line: number, set: () => T): T {
    const around = this.line;
    this.line = line;
    const result = set();
    this.line = around;
    return result;
  }

  protected linked(link: LinkAttrs, run: InlineRun, style: Style): SetInline[] {
    const content = run.nodes.flatMap((node) => this.inline(node, style));
    const url = this.target(link.destination, link.description, runText(run));
    if (url === null) return content;
    const { kind } = link.destination;
    const set: SetInline = { kind: "link", look: link.asText ? "text" : (link.look ?? kind), url, content };
    if (link.destination.kind !== "web" || this.book.addresses === "none" || !style.mayPrint) return [set];
    const address = breakable(link.destination.address);
    const number = ++this.book.printedCount;
    if (this.book.addresses === "notes") return [set, { kind: "address", number, address }];
    this.book.printed.push(address);
    return [set, { kind: "address", number, address: null }];
  }

  /** The marker of an address by which the template links; null where the link cannot travel. */
  private target(destination: Destination, description: string | null, words: string): string | null {
    const way = travel(destination, this.index, this.book.files);
    if (way.kind === "words") return null;
    if (way.kind === "place") return this.toPlace(way.place.id, description || way.place.words || words);
    const address = way.kind === "file" ? way.href : way.address;
    return this.mark({ address }, description || wordsAndHost(words, address));
  }

  private toPlace(place: string, description: string, list?: string): string {
    return this.mark({ place }, description, list);
  }

  /** A place whose page number is printed. */
  private pageOf(place: string): string {
    this.book.paged.add(place);
    return place;
  }

  private mark(to: MarkedLink["to"], description: string, list?: string): string {
    const marker = `${this.book.markerBase}${this.book.marked.length}`;
    this.book.marked.push({ marker, to, description, ...(list === undefined ? {} : { list }) });
    return marker;
  }

  private crossReference(node: Node): SetInline {
    const says = this.wordsOfReference(node, true);
    if (says.kind === "gap") return gap;
    const { target } = referenceAttrs(node);
    const { words } = this.index.places.get(target)!;
    const text = (shown: string): SetInline => ({ kind: "text", words: shown });
    const content: SetInline[] =
      says.kind === "words"
        ? [text(says.words)]
        : [text(says.before), { kind: "page", place: this.pageOf(target) }, text(says.after)];
    const shown = says.kind === "words" ? says.words : says.before;
    return { kind: "link", look: "place", url: this.toPlace(target, words || shown), content };
  }

  private inLines(block: Node, style: Style): SetInline[] {
    return withPicturesInLines(this.inlines(block, style), this.cellsOpen > 0 ? null : this.line);
  }

  private picture(node: Node): SetInline {
    const attrs = pictureAttrs(node);
    const { file, alt, decorative, width } = attrs;
    const path = file === null ? undefined : this.book.picturePaths.get(file);
    if (!path) return { kind: "text", words: pictureWords(attrs) };
    const hotspots = attrs.hotspots.flatMap((hotspot) => {
      // An area has no words, so its text alternative is what the annotation says.
      const url = this.target(hotspot.destination, hotspot.description ?? hotspot.alt, hotspot.alt);
      const { frame, shape } = hotspot;
      return url === null ? [] : [{ url, ...hotspotBox(hotspot), frame, shape }];
    });
    return {
      kind: "picture",
      file: path,
      alt,
      decorative: decorative || alt === "",
      alone: false,
      room: null,
      places: [],
      percent: width,
      hotspots,
    };
  }

  private noteReference(id: string): SetInline[] {
    const note = this.notes.get(id);
    if (!note) return [gap];
    const which = this.nextReference(id);
    const here = this.anchorHere(referenceId(id, which));
    const number = this.index.places.get(id)!.number!;
    if (this.index.conventions.notesAt !== "page")
      return [...here, { kind: "raised-link", words: number, url: this.toPlace(id, number) }];
    const footnote = `fn-${id}`;
    // A note that is called in another too stands where the text first calls it.
    if (which > 1) return [...here, { kind: "note-again", number, footnote }];
    return [...here, { kind: "note", footnote, ...this.note(note) }];
  }

  private hold(place: string, by: string): void {
    this.book.labelled.delete(place);
    this.book.held.set(place, by);
  }

  private anchorHere(id: string): SetInline[] {
    const label = this.label(id);
    return label === null ? [] : [{ kind: "anchor", label }];
  }

  /** The label of a landing place, unless it has been set already. */
  private label(id: string): string | null {
    if (this.book.labelled.has(id) || this.book.held.has(id)) return null;
    this.book.labelled.add(id);
    return id;
  }
}
