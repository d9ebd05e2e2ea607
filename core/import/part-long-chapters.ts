import type { Node } from "prosemirror-model";
import { chapterTitle } from "../manuscript/chapter.ts";
import type { ChapterRole } from "../manuscript/chapter-role.ts";
import { largestChapter } from "../manuscript/chapter-size.ts";
import { newId } from "../manuscript/ids.ts";
import { linkOn, schema } from "../manuscript/schema.ts";
import type { LeftOut } from "./left-out.ts";

/** A chapter that is larger is parted: its author has room to write on in any other. */
const mostBytes = 0.75 * largestChapter;
/** What each part has at most, where it can be parted there, and at least. */
const partBytes = largestChapter / 2;
const leastBytes = partBytes / 4;

/** Chapters, of each its role, and what is told of them. */
export interface Parted {
  chapters: Node[];
  roles: ChapterRole[];
  /** The ids of the titles of those that go on. */
  ownTitles: ReadonlySet<string>;
  leftOut: LeftOut[];
}

/**
 * Parts each chapter that is larger than its author could save, at its highest headings or else between paragraphs. No link
 * and no note is parted from what belongs to it.
 */
export function partLongChapters(chapters: readonly Node[], roles: readonly ChapterRole[]): Parted {
  const ownTitles = new Set<string>();
  const all: Parted = { chapters: [], roles: [], ownTitles, leftOut: [] };
  chapters.forEach((doc, i) => {
    const isLong = bytesOf(doc) > mostBytes;
    const parts = isLong ? partsOf(doc) : [doc];
    all.chapters.push(...parts);
    all.roles.push(...parts.map(() => roles[i]!));
    for (const part of parts.slice(1)) ownTitles.add(part.firstChild!.attrs["id"] as string);
    if (parts.length > 1)
      all.leftOut.push({
        where: null,
        sort: "Long chapters",
        what: chapterTitle(doc),
        why: `It is larger than a chapter can be. It came as ${parts.length} chapters, of which each goes on where the one before ends.`,
      });
    for (const part of parts)
      if (isLong && bytesOf(part) > largestChapter)
        all.leftOut.push({
          where: null,
          sort: "Long chapters",
          what: chapterTitle(part),
          why: "It is larger than a chapter can be, and there is nowhere to part it. What is changed in it cannot be saved: take parts of it into other chapters first.",
        });
  });
  return all;
}

/** A block of a chapter with the notes that are called there first. */
interface Piece {
  block: Node;
  notes: Node[];
  bytes: number;
}

function partsOf(doc: Node): Node[] {
  const pieces = piecesOf(doc);
  const sizes = [0];
  for (const { bytes } of pieces) sizes.push(sizes.at(-1)! + bytes);
  const ranks = ranksOfCuts(pieces.map(({ block }) => block));
  const cuts = [0];
  for (;;) {
    const from = cuts.at(-1)!;
    if (sizes.at(-1)! - sizes[from]! <= partBytes) break;
    const next = nextCut(from, sizes, ranks);
    if (next === null) break;
    cuts.push(next);
  }
  if (cuts.length === 1) return [doc];
  return cuts.map((from, i) => {
    const own = pieces.slice(from, cuts[i + 1]);
    return schema.node("doc", null, [
      i === 0 ? doc.firstChild! : titleOfPart(doc, i + 1),
      ...own.map(({ block }) => block),
      ...own.flatMap(({ notes }) => notes),
    ]);
  });
}

function titleOfPart(doc: Node, which: number): Node {
  return schema.node("title", { id: newId() }, schema.text(`${chapterTitle(doc)} (${which})`.trim()));
}

function piecesOf(doc: Node): Piece[] {
  const [, ...content] = doc.children;
  const pieces = content
    .filter(({ type }) => type.name !== "note")
    .flatMap(withinPart)
    .map((block): Piece => ({ block, notes: [], bytes: bytesOf(block) }));
  const callers = new Map<string, Piece>();
  for (const piece of pieces)
    for (const { type, attrs } of inlinesOf(piece.block)) {
      const note = attrs["note"] as string;
      if (type.name === "note_reference" && !callers.has(note)) callers.set(note, piece);
    }
  for (const note of content.filter(({ type }) => type.name === "note")) {
    const piece = callers.get(note.attrs["id"] as string) ?? pieces.at(-1)!;
    piece.notes.push(note);
    piece.bytes += bytesOf(note);
  }
  return pieces;
}

/** A list that is larger than a part, as several that go on with its numbers. */
function withinPart(block: Node): Node[] {
  if (!/^(bullet|ordered)_list$/.test(block.type.name) || bytesOf(block) <= partBytes) return [block];
  const lists: Node[][] = [];
  let bytes = Infinity;
  for (const item of block.children) {
    bytes += bytesOf(item);
    if (bytes > partBytes) {
      lists.push([]);
      bytes = bytesOf(item);
    }
    lists.at(-1)!.push(item);
  }
  let before = 0;
  return lists.map((items) => {
    const first = block.attrs["start"] as number | undefined;
    const attrs = first === undefined ? block.attrs : { ...block.attrs, start: first + before };
    before += items.length;
    return block.type.create(attrs, items, block.marks);
  });
}

function bytesOf(block: Node): number {
  return new TextEncoder().encode(JSON.stringify(block)).length;
}

function inlinesOf(block: Node): Node[] {
  const found: Node[] = [];
  block.descendants((node) => {
    if (node.isInline) found.push(node);
  });
  return found;
}

/** Between other blocks, as a picture and its caption, none is cut. */
const plain = new Set(["paragraph", "bullet_list", "ordered_list", "blockquote", "code_block"]);

/** How well a chapter is parted before each of its blocks: the lower the better; null where it cannot be. */
function ranksOfCuts(blocks: readonly Node[]): (number | null)[] {
  const last = new Map<string, number>();
  const together = blocks.map((block) => inlinesOf(block).flatMap(belongingOf));
  together.forEach((all, i) => all.forEach((one) => last.set(one, i)));
  let goesOnTo = -1;
  return blocks.map((block, i) => {
    const isParted = goesOnTo >= i;
    for (const one of together[i]!) goesOnTo = Math.max(goesOnTo, last.get(one)!);
    if (i === 0 || isParted) return null;
    if (block.type.name === "heading") return block.attrs["level"] as number;
    return plain.has(block.type.name) && plain.has(blocks[i - 1]!.type.name) ? 9 : null;
  });
}

/** The link that something is of, or the note that it calls: what bears the same name stays in one chapter. */
function belongingOf(inline: Node): string[] {
  const link = linkOn(inline);
  return [
    ...(link ? [`link ${link.id}`] : []),
    ...(inline.type.name === "note_reference" ? [`note ${inline.attrs["note"] as string}`] : []),
  ];
}

/** The best cut behind a block that keeps the part before it as large as wanted, else the first that there is. */
function nextCut(from: number, sizes: readonly number[], ranks: readonly (number | null)[]): number | null {
  let best: number | null = null;
  for (let at = from + 1; at < ranks.length; at++) {
    const rank = ranks[at];
    const bytes = sizes[at]! - sizes[from]!;
    if (bytes > partBytes && best !== null) break;
    if (typeof rank !== "number" || bytes < leastBytes) continue;
    if (best === null || rank <= ranks[best]!) best = at;
  }
  return best;
}
