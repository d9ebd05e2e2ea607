import { blockEdits, type BlockEdit } from "@vennet/core/manuscript/merge-texts";
import type { Node } from "prosemirror-model";
import type { EditorState, Transaction } from "prosemirror-state";

/** On a transaction that shows what the server has already, so that there is nothing to save. */
export const adopted = "adopted";

/**
 * Shows another version of the open text, changing only the blocks that differ, and in each only what differs, so that
 * cursor and undo stay. Null where nothing differs.
 */
export function adoptText(state: EditorState, next: Node): Transaction | null {
  const edits = blockEdits(state.doc, next);
  if (edits.length === 0) return null;
  let change = state.tr;
  // From the last to the first, so that what stands before keeps its position.
  for (const edit of edits.reverse()) replaceBlocks(change, state.doc, edit);
  if (!change.doc.eq(next)) change = state.tr.replaceWith(0, state.doc.content.size, next.content);
  return change.setMeta("addToHistory", false).setMeta(adopted, true);
}

function replaceBlocks(change: Transaction, doc: Node, { from, to, blocks }: BlockEdit): void {
  const start = startOf(doc, from);
  const [block] = blocks;
  if (to - from !== 1 || blocks.length !== 1 || !doc.child(from).sameMarkup(block!)) {
    change.replaceWith(start, startOf(doc, to), blocks);
    return;
  }
  const before = doc.child(from).content;
  const first = before.findDiffStart(block!.content, start + 1)!;
  const last = before.findDiffEnd(block!.content, start + 1 + before.size, start + 1 + block!.content.size)!;
  // Where the same letters stand before and behind the difference, the ends may overlap the start.
  const overlap = Math.max(0, first - Math.min(last.a, last.b));
  change.replace(first, last.a + overlap, block!.slice(first - start - 1, last.b + overlap - start - 1));
}

/** Where a document's nth block begins; behind the last one where it has no such block. */
function startOf(doc: Node, index: number): number {
  let at = 0;
  for (let i = 0; i < index; i++) at += doc.child(i).nodeSize;
  return at;
}
