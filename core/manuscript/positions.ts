import { Fragment, type Node } from "prosemirror-model";
import { firstAt } from "./first-at.ts";

// What stands at a position is asked for each link of a chapter. The document's own `nodeAt`, `resolve` and `nodesBetween` go
// through all blocks before it; these look it up.

/** So few children are gone through as quickly as they are looked up. */
const few = 16;
const startsIn = new WeakMap<Fragment, Uint32Array>();

/** Where each child begins, and behind the last where it ends. */
function startsOf(content: Fragment): Uint32Array {
  let starts = startsIn.get(content);
  if (!starts) {
    starts = new Uint32Array(content.childCount + 1);
    content.content.forEach((child, i) => (starts![i + 1] = starts![i]! + child.nodeSize));
    if (content.childCount > few) startsIn.set(content, starts);
  }
  return starts;
}

/** The last child that begins at an offset or before it; behind the last one their count. */
function indexAt(starts: Uint32Array, offset: number): number {
  return firstAt(starts, (start) => start > offset) - 1;
}

/** What a position lies in. */
export interface Resolved {
  /** The innermost node around it that is no text. */
  parent: Node;
  /** How far into the content of that it is. */
  offset: number;
  /** Which of its children begins there, or goes on there. */
  index: number;
  /** The child before it: the same one, where it lies within a text. */
  before: Node | null;
  /** The child that begins there, or goes on there. */
  after: Node | null;
}

/** What a position of a document lies in, as the document's own `resolve` tells it. */
export function resolved(doc: Node, position: number): Resolved {
  let [parent, offset] = [doc, position];
  for (;;) {
    const starts = startsOf(parent.content);
    const index = indexAt(starts, offset);
    const after = parent.maybeChild(index);
    const into = offset - starts[index]!;
    if (into === 0 || !after || after.isText) {
      const before = into > 0 ? after : parent.maybeChild(index - 1);
      return { parent, offset, index, before, after };
    }
    [parent, offset] = [after, into - 1];
  }
}

/** The node that begins at a position of a document, or the text that goes on there; null where none does. */
export function nodeAt(doc: Node, position: number): Node | null {
  return resolved(doc, position).after;
}

/** What stands between two positions, whole nodes, and where the first of them begins. */
export interface Stretch {
  content: Fragment;
  start: number;
}

/** The nodes that two positions of a document lie in or between, the innermost that hold both. */
export function stretchBetween(doc: Node, from: number, to: number): Stretch {
  let [parent, start] = [doc, 0];
  for (;;) {
    const starts = startsOf(parent.content);
    const first = indexAt(starts, from - start);
    const last = indexAt(starts, Math.max(from, to - 1) - start);
    const begins = start + starts[first]!;
    const child = parent.maybeChild(first);
    // Both lie within its content.
    if (first === last && child && !child.isText && from > begins && to < begins + child.nodeSize)
      [parent, start] = [child, begins + 1];
    else return { content: Fragment.from(parent.children.slice(first, last + 1)), start: begins };
  }
}

/** The text between two positions of a document, as the document's own `textBetween` gives it. */
export function textBetween(
  doc: Node,
  from: number,
  to: number,
  betweenBlocks: string,
  forLeaves?: string,
): string {
  const { content, start } = stretchBetween(doc, from, to);
  return content.textBetween(from - start, to - start, betweenBlocks, forLeaves);
}

/**
 * The text of a paragraph before and behind a stretch that begins in it.
 * @param letters how many of each at most; what is no text counts as one
 */
export function textBeside(
  doc: Node,
  { from, to }: { from: number; to: number },
  letters: number,
  forLeaves?: string,
): { before: string; after: string } {
  const { parent, offset } = resolved(doc, from);
  const [begins, ends] = [from - offset, from - offset + parent.content.size];
  const behind = Math.min(to, ends);
  return {
    before: textBetween(doc, Math.max(begins, from - letters), from, "", forLeaves),
    after: textBetween(doc, behind, Math.min(ends, behind + letters), "", forLeaves),
  };
}

/** Calls something for each node between two positions of a document, with where it begins; false goes into it no further. */
export function nodesBetween(
  doc: Node,
  from: number,
  to: number,
  visit: (node: Node, position: number) => boolean | undefined | void,
): void {
  const { content, start } = stretchBetween(doc, from, to);
  content.nodesBetween(from - start, to - start, (node, position) => visit(node, position), start);
}
