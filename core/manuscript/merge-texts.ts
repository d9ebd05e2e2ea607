import { Fragment, type Node } from "prosemirror-model";
import { Transform } from "prosemirror-transform";
import { giveOwnIds } from "./edit-links.ts";
import { gapsBetween } from "./list-gaps.ts";
import { schema } from "./schema.ts";

type Stretch = Pick<BlockEdit, "from" | "to">;

/** Blocks that came in place of others, counted among the children of the earlier document. */
export interface BlockEdit {
  from: number;
  to: number;
  blocks: Node[];
}

/** What has become of a document's blocks, in their order. */
export function blockEdits(before: Node, after: Node): BlockEdit[] {
  const gaps = gapsBetween(before.children.map(writtenOf), after.children.map(writtenOf));
  return gaps
    .map(({ from, to, start, end }) => ({ from, to, blocks: after.children.slice(start, end) }))
    .flatMap(apart);
}

const written = new WeakMap<Node, string>();

/** A block as JSON, by which equal ones are told; the same object stands in several texts. */
function writtenOf(block: Node): string {
  let text = written.get(block);
  if (text === undefined) written.set(block, (text = JSON.stringify(block)));
  return text;
}

/** As many blocks in place of as many others are changed one by one. */
function apart(edit: BlockEdit): BlockEdit[] {
  const { from, to, blocks } = edit;
  if (to - from !== blocks.length) return [edit];
  return blocks.map((block, i) => ({ from: from + i, to: from + i + 1, blocks: [block] }));
}

/**
 * One text of two that were made from the same one, paragraph by paragraph (and list by list, table by table): where
 * only one of them changed a block, its change is taken; what both put in at one place stands after each other.
 * @param base what both were made from
 * @returns null where both changed the same block, each otherwise
 */
export function mergeTexts(base: Node, mine: Node, theirs: Node): Node | null {
  const [own, others] = [blockEdits(base, mine), blockEdits(base, theirs)];
  const merged: Node[] = [];
  let at = 0;
  while (own.length > 0 || others.length > 0) {
    const [a, b] = [own[0], others[0]];
    let next: BlockEdit;
    if (a && b && meet(a, b)) {
      const both = together(a, b);
      if (!both) return null;
      next = both;
      own.shift();
      others.shift();
    } else next = (!b || (a && isBefore(a, b)) ? own : others).shift()!;
    // An edit that was put together from two may reach into the next.
    if (next.from < at) return null;
    merged.push(...base.children.slice(at, next.from), ...next.blocks);
    at = next.to;
  }
  merged.push(...base.children.slice(at));
  return checked(merged);
}

/** Whether two edits are about the same block, or put something in at the same place. */
export function meet(a: Stretch, b: Stretch): boolean {
  return (a.from < b.to && b.from < a.to) || (a.from === b.from && (a.from === a.to) === (b.from === b.to));
}

/** Whether an edit comes before another that it does not meet. */
export function isBefore(a: Stretch, b: Stretch): boolean {
  return a.from === b.from ? a.to < b.to : a.from < b.from;
}

function together(a: BlockEdit, b: BlockEdit): BlockEdit | null {
  const isSame = a.from === b.from && a.to === b.to && Fragment.from(a.blocks).eq(Fragment.from(b.blocks));
  if (isSame) return a;
  if (a.from !== a.to || b.from !== b.to) return null;
  const blocks = [...b.blocks, ...a.blocks];
  const isNote = (node: Node): boolean => node.type === schema.nodes.note;
  return { ...a, blocks: [...blocks.filter((node) => !isNote(node)), ...blocks.filter(isNote)] };
}

/** The document of some blocks, with an id of its own for everything; null where the schema has none such. */
function checked(blocks: Node[]): Node | null {
  const doc = schema.nodes.doc!.create(null, blocks);
  const change = new Transform(doc);
  try {
    doc.check();
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
  giveOwnIds(change);
  return change.doc;
}
