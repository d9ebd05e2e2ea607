import type { Node } from "prosemirror-model";
import type { BookIndex, IndexedPlace } from "./book-index.ts";
import { HeadingLevels } from "./outline.ts";
import { signpostAttrs, type SignpostList } from "./attributes.ts";

/** One jump of a signpost list. */
export interface Signpost {
  /** Where it leads. */
  id: string;
  /** What it says, with the number before it where the place has one. */
  words: string;
  /** How deep it stands in the list, from 0. */
  depth: number;
}

/** A return link that stands at the end of a section, and leads to the list from which readers came. */
export interface ReturnLink {
  /** The document position at which it stands, between two blocks. */
  at: number;
  /** The list's id. */
  list: string;
  words: string;
}

/** The entries of a list as the book is now, in reading order; `chapter` is the index of its own chapter. */
export function signpostsOf(list: SignpostList, index: BookIndex, chapter: number): Signpost[] {
  const chosen = placesFor(list, index, chapter);
  // In a book with parts, chapters stand under these.
  const levelOf = ({ level, chapter: at }: IndexedPlace): number =>
    level === null ? 0 : level + (list.scope === "book" && index.isInPart(at) ? 1 : 0);
  const highest = Math.min(...chosen.map(levelOf));
  const levels = new HeadingLevels();
  return chosen.map((place) => {
    const label = place.kind === "anchor" ? null : index.labelOf(place);
    const words = label === null ? place.words : `${label} ${place.words}`;
    return { id: place.id, words, depth: levels.next(levelOf(place) - highest) - 1 };
  });
}

/** Whether the text holds a contents list of the whole book, so that the export need not make one. */
export function hasOwnContents(book: { chapters: { doc: Node }[] }): boolean {
  let found = false;
  for (const { doc } of book.chapters) {
    doc.descendants((node) => {
      if (node.type.name !== "signposts") return !found;
      const { of, scope } = signpostAttrs(node);
      found ||= of === "contents" && scope === "book";
      return false;
    });
  }
  return found;
}

/** Signposts with those that stand deeper under them. */
export interface SignpostBranch extends Signpost {
  inner: SignpostBranch[];
}

/** A list as a tree, as nested lists show it. */
export function nested(signposts: readonly Signpost[]): SignpostBranch[] {
  const roots: SignpostBranch[] = [];
  const open: SignpostBranch[] = [];
  for (const signpost of signposts) {
    const branch = { ...signpost, inner: [] };
    open.length = Math.min(open.length, signpost.depth);
    (open.at(-1)?.inner ?? roots).push(branch);
    open.push(branch);
  }
  return roots;
}

function placesFor(list: SignpostList, index: BookIndex, chapter: number): IndexedPlace[] {
  const within = rangeOf(list, index, chapter);
  if (!within) return [];
  const here = index.inOrder.slice(within.from, within.to).filter(
    // Of two equal ids the first has the place; a heading without words is none.
    (place) => index.places.get(place.id) === place && place.words !== "",
  );
  switch (list.of) {
    case "contents": {
      // In a chapter or section, the heading that it is under is no entry itself.
      const deepest = list.scope === "book" ? list.depth - 1 : within.level + list.depth;
      return here.filter(({ level, order }) => level !== null && level <= deepest && order >= within.first);
    }
    case "questions":
      return here.filter(({ kind, level }) => kind === "heading" && level === list.depth);
    case "figures":
      return here.filter(({ kind }) => kind === "figure");
    case "tables":
      return here.filter(({ kind }) => kind === "table");
    case "anchors":
      return here.filter(({ kind, id }) => kind === "anchor" && list.anchors.includes(id));
  }
}

interface Range {
  from: number;
  to: number;
  /** The level of the heading that the range is under, and the order of the first place that may be an entry. */
  level: number;
  first: number;
}

function rangeOf(list: SignpostList, index: BookIndex, chapter: number): Range | null {
  const { inOrder } = index;
  if (list.scope === "book" || list.of === "anchors") {
    const companions = inOrder.findIndex(({ chapter: at }) => index.companions.has(at));
    const isReadingOrder = list.of === "contents" || list.of === "questions";
    const to = isReadingOrder && companions !== -1 ? companions : inOrder.length;
    return { from: 1, to, level: -1, first: 1 };
  }
  const start =
    list.scope === "chapter"
      ? inOrder.find((place) => place.chapter === chapter)
      : list.section === null
        ? undefined
        : index.places.get(list.section);
  if (!start || start.level === null) return null;
  const end = inOrder.findIndex(
    (place) =>
      place.order > start.order &&
      (place.chapter !== start.chapter || (place.level !== null && place.level <= start.level!)),
  );
  const to = end === -1 ? inOrder.length : end;
  return { from: start.order, to, level: start.level, first: start.order + 1 };
}

/**
 * The return links that a chapter's sections end with: one after each section that a list with return links
 * lists, nearest to the section's own end. The section in which the list itself stands gets none.
 */
export function returnLinksOf(doc: Node, chapter: number, index: BookIndex): ReturnLink[] {
  const lists = listsReturnedTo(index);
  if (lists.length === 0) return [];
  const sections = sectionsOf(doc);
  const links: (ReturnLink & { level: number })[] = [];
  for (const { place, words, listed } of lists) {
    const { id, chapter: home, position } = place;
    const ends = new Map<number, number>();
    for (const section of sections) {
      const holdsList = home === chapter && section.from <= position && position < section.to;
      if (listed.has(section.id) && !holdsList) ends.set(section.to, section.level);
    }
    for (const [at, level] of ends) links.push({ at, level, list: id, words });
  }
  // Where several sections end together, the innermost ends first.
  links.sort((a, b) => a.at - b.at || b.level - a.level);
  return links.map(({ at, list, words }) => ({ at, list, words }));
}

/** A list to which sections lead back. */
interface ReturnedTo {
  place: IndexedPlace;
  words: string;
  /** The ids of what it lists. */
  listed: ReadonlySet<string>;
}

const returnedTo = new WeakMap<BookIndex, ReturnedTo[]>();

/** The lists of a book to which sections lead back, looked for once and not for each chapter. */
function listsReturnedTo(index: BookIndex): ReturnedTo[] {
  let lists = returnedTo.get(index);
  if (lists) return lists;
  lists = index.lists.flatMap((place) => {
    const { list, chapter } = place;
    if (!list || list.returnWords === null || (list.of !== "contents" && list.of !== "questions")) return [];
    const listed = new Set(signpostsOf(list, index, chapter).map(({ id }) => id));
    return [{ place, words: list.returnWords, listed }];
  });
  returnedTo.set(index, lists);
  return lists;
}

/** The sections of a chapter: each title or heading, to the next that is no lower, or to the notes. */
function sectionsOf(doc: Node): { id: string; level: number; from: number; to: number }[] {
  const sections: { id: string; level: number; from: number; to: number }[] = [];
  let end = 0;
  doc.forEach((node, position) => {
    const name = node.type.name;
    if (name === "note") return;
    if (name === "heading" || name === "title") {
      const level = name === "title" ? 0 : (node.attrs["level"] as number);
      for (const open of sections) if (open.to === -1 && open.level >= level) open.to = position;
      sections.push({ id: node.attrs["id"] as string, level, from: position, to: -1 });
    }
    end = position + node.nodeSize;
  });
  for (const open of sections) if (open.to === -1) open.to = end;
  return sections;
}
