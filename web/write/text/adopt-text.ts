import type { Node } from "prosemirror-model";
import type { EditorState, Transaction } from "prosemirror-state";
import { adopted } from "./create-editor";

/**
 * Shows another version of the open text, changing only what differs, so that cursor and undo stay. Null
 * where nothing differs.
 */
export function adoptText(state: EditorState, next: Node): Transaction | null {
  const start = state.doc.content.findDiffStart(next.content);
  const end = state.doc.content.findDiffEnd(next.content);
  if (start === null || !end) return null;
  // Where the same letters stand before and behind the difference, the ends may overlap the start.
  const overlap = Math.max(0, start - Math.min(end.a, end.b));
  let change = state.tr.replace(start, end.a + overlap, next.slice(start, end.b + overlap));
  if (!change.doc.eq(next)) change = state.tr.replaceWith(0, state.doc.content.size, next.content);
  return change.setMeta("addToHistory", false).setMeta(adopted, true);
}
