import type { Node, Schema } from "prosemirror-model";
import type { BookIndex } from "./book-index.ts";
import { captionedBlocks, type CaptionedBlock } from "./captions.ts";
import { inlineRuns, type InlineRun } from "./links.ts";
import { turnedDirection, type Direction } from "./direction.ts";
import { numberNotes, type NumberedNote } from "./notes.ts";
import { HeadingLevels } from "./outline.ts";
import { positionOfReference, referenceWords, type ReferenceWords } from "./references.ts";
import { referenceAttrs, type LinkAttrs } from "./attributes.ts";
import type { schema } from "./schema.ts";
import { returnLinksOf, type ReturnLink } from "./signposts.ts";

type NodeName = typeof schema extends Schema<infer Name, string> ? Name : never;

/** What stands in the words of a block. */
export type InlineName =
  "text" | "hard_break" | "picture" | "formula" | "anchor" | "cross_reference" | "note_reference";

/** What is written with the block that it is part of. */
type PartName =
  | "doc"
  | "list_item"
  | "definition_term"
  | "definition"
  | "table_row"
  | "table_cell"
  | "table_header"
  | "note";

/** Every node of the schema that is neither: one that is added to it fails the build until all writers handle it. */
export type BlockName = Exclude<NodeName, InlineName | PartName>;

/** A handler for each kind of block. */
export type BlockHandlers<Block, Style> = {
  readonly [name in BlockName]: (node: Node, style: Style) => Block[];
};

/** A handler for all that stands in the words of a block. */
export type InlineHandlers<Inline, Style> = {
  readonly [name in InlineName]: (node: Node, style: Style) => Inline[];
};

/** A chapter on its way through a writer. */
export interface WalkedChapter {
  doc: Node;
  /** Its index in the book. */
  at: number;
  index: BookIndex;
}

/**
 * The walk over a chapter that every writer makes: its blocks in order, each caption with what it is about, return
 * links at the ends of their sections, links by their runs, notes' numbers behind the links that they stand in. A
 * writer says what becomes of each node; `Style` is what it hands down from a block to what is inside.
 */
export abstract class ChapterWalk<Block, Inline, Style> {
  protected abstract readonly blockHandlers: BlockHandlers<Block, Style>;
  protected abstract readonly inlineHandlers: InlineHandlers<Inline, Style>;
  protected readonly levels = new HeadingLevels();
  protected readonly index: BookIndex;
  /** The chapter’s notes in the order of their numbers, by their ids. */
  protected readonly notes: ReadonlyMap<string, NumberedNote>;
  private readonly referred = new Map<string, number>();
  /** The note that is being written; null in the text itself. */
  private within: string | null = null;

  constructor(protected readonly chapter: WalkedChapter) {
    this.index = chapter.index;
    this.notes = new Map(numberNotes(chapter.doc).map((note) => [note.id, note]));
  }

  protected abstract returnLink(link: ReturnLink): Block;
  /** A link's words as they are written. */
  protected abstract linked(link: LinkAttrs, run: InlineRun, style: Style): Inline[];

  /** All blocks of the chapter but its notes. */
  protected body(style: Style): Block[] {
    const { doc, at, index } = this.chapter;
    const returns = returnLinksOf(doc, at, index);
    return captionedBlocks(doc).flatMap((block) => {
      if (block.node.type.name === "note") return [];
      const ending = returns.filter((link) => link.at === block.end);
      return [...this.captioned(block, style), ...ending.map((link) => this.returnLink(link))];
    });
  }

  /** The blocks inside a node. */
  protected blocks(parent: Node, style: Style): Block[] {
    return captionedBlocks(parent).flatMap((block) => this.captioned(block, style));
  }

  /** A block with its caption: beside it, unless a writer knows better. */
  protected captioned({ node, caption, captionFirst }: CaptionedBlock, style: Style): Block[] {
    const parts = caption ? [node, caption] : [node];
    return (captionFirst ? parts.reverse() : parts).flatMap((part) => this.block(part, style));
  }

  protected block(node: Node, style: Style): Block[] {
    return this.blockHandlers[node.type.name as BlockName](node, style);
  }

  protected inline(node: Node, style: Style): Inline[] {
    return this.inlineHandlers[node.type.name as InlineName](node, style);
  }

  /** The words of a block. */
  protected inlines(block: Node, style: Style): Inline[] {
    const inlinesOf = (nodes: readonly Node[]): Inline[] => nodes.flatMap((node) => this.inline(node, style));
    return inlineRuns(block).flatMap((run) => {
      if (!run.link) return inlinesOf(run.nodes);
      const isNote = (node: Node): boolean => node.type.name === "note_reference";
      const words = { ...run, nodes: run.nodes.filter((node) => !isNote(node)) };
      // A link cannot hold another one: a note's number inside a link stands behind it.
      return [...this.linked(run.link, words, style), ...inlinesOf(run.nodes.filter(isNote))];
    });
  }

  /** The direction of a block where it is not the book's. */
  protected turned(node: Node): Direction | null {
    return turnedDirection(node, this.index.direction);
  }

  /** What stands before the words of a caption, as “Figure 3”; null where captions of its kind are not counted. */
  protected captionLabel(caption: Node): string | null {
    const place = this.index.places.get(caption.attrs["id"] as string);
    return place ? this.index.labelOf(place) : null;
  }

  /** What a cross-reference says where it stands. */
  protected wordsOfReference(node: Node, hasPages: boolean): ReferenceWords {
    const { doc, at, index } = this.chapter;
    const reference = referenceAttrs(node);
    const from = { chapter: at, position: positionOfReference(doc, reference.id) };
    return referenceWords(reference, index, from, hasPages);
  }

  /** Writes what stands in a note. */
  protected inNote<T>(note: string, write: () => T): T {
    const before = this.within;
    this.within = note;
    const written = write();
    this.within = before;
    return written;
  }

  /**
   * Which reference to a note the one is that is written now, from 1, in the order of the text: notes may be written
   * in another.
   */
  protected nextReference(note: string): number {
    const all = this.notes.get(note)?.standsIn ?? [];
    const key = JSON.stringify([this.within, note]);
    const here = this.referred.get(key) ?? 0;
    this.referred.set(key, here + 1);
    let seen = 0;
    const at = all.findIndex((within) => within === this.within && seen++ === here);
    return at + 1;
  }
}
