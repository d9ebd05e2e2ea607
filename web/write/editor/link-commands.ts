import type { Destination } from "@vennet/core/destination/destination";
import { newId } from "@vennet/core/manuscript/ids";
import type { LinkUse } from "@vennet/core/manuscript/links";
import { schema } from "@vennet/core/manuscript/schema";
import { TextSelection, type EditorState, type Transaction } from "prosemirror-state";

/** A selection without the blanks at its ends: a link covers the words alone (common practice). */
export function withoutOuterBlanks(state: EditorState): { from: number; to: number } {
  let { from, to } = state.selection;
  const at = (position: number): string => state.doc.textBetween(position, position + 1, "\n", "\ufffc");
  while (from < to && /\s/.test(at(from))) from++;
  while (to > from && /\s/.test(at(to - 1))) to--;
  return { from, to };
}

/** Links words. Each paragraph's part becomes a link of its own; links inside it give way. */
export function linkWords(
  state: EditorState,
  from: number,
  to: number,
  destination: Destination,
): Transaction {
  const change = state.tr;
  state.doc.nodesBetween(from, to, (node, position) => {
    if (!node.isTextblock) return true;
    const start = Math.max(from, position + 1);
    const end = Math.min(to, position + node.nodeSize - 1);
    if (start < end) change.addMark(start, end, schema.mark("link", { id: newId(), destination }));
    return false;
  });
  return change.setSelection(TextSelection.create(change.doc, to)).setStoredMarks([]);
}

/** Puts new words in at the cursor, and links them. */
export function insertLinkedWords(state: EditorState, words: string, destination: Destination): Transaction {
  const { from, to, $from } = state.selection;
  const link = schema.mark("link", { id: newId(), destination });
  const marks = link.addToSet($from.marks());
  return state.tr.replaceWith(from, to, schema.text(words, marks)).setStoredMarks([]);
}

/** Gives a link another destination; its words, id and description stay. */
export function changeDestination(state: EditorState, use: LinkUse, destination: Destination): Transaction {
  const { id, description } = use;
  return state.tr.addMark(use.from, use.to, schema.mark("link", { id, destination, description }));
}

/** Gives a link other words; its destination stays, and so do the marks of its first word. */
export function changeWords(state: EditorState, use: LinkUse, words: string): Transaction {
  const marks = state.doc.nodeAt(use.from)!.marks;
  const change = state.tr.replaceWith(use.from, use.to, schema.text(words, marks));
  return change.setSelection(TextSelection.create(change.doc, use.from + words.length));
}

/** Takes a link away and keeps its words. */
export function removeLink(state: EditorState, use: LinkUse): Transaction {
  return state.tr.removeMark(use.from, use.to, schema.marks.link!).setStoredMarks([]);
}

/** Puts the selection on a link's words. */
export function selectLink(state: EditorState, use: LinkUse): Transaction {
  return state.tr.setSelection(TextSelection.create(state.doc, use.from, use.to)).scrollIntoView();
}
