import type { Destination } from "@vennet/core/destination/kinds/kinds";
import { isPlainlyAnAddress } from "@vennet/core/destination/recognise";
import {
  changeLink,
  linkRange,
  unlink,
  withoutOuterBlanks,
  type LinkChange,
} from "@vennet/core/manuscript/edit-links";
import { newId } from "@vennet/core/manuscript/ids";
import { linkUses, type LinkUse } from "@vennet/core/manuscript/links";
import { schema } from "@vennet/core/manuscript/schema";
import { NodeSelection, TextSelection, type EditorState, type Transaction } from "prosemirror-state";
import { tellLinkMarks } from "./link-marks";

export interface NewLink {
  destination: Destination;
  description: string | null;
}

/** The selection without the blanks at its ends. */
export function wordsOfSelection({ doc, selection }: EditorState): { from: number; to: number } {
  return withoutOuterBlanks(doc, selection.from, selection.to);
}

/** Links a range of the text, or a picture; with `text` it gets other words, or another text alternative. */
export function linkWords(
  state: EditorState,
  from: number,
  to: number,
  link: NewLink,
  text?: string,
): Transaction {
  const change = state.tr;
  const id = linkRange(change, from, to, link);
  const use = linkUses(change.doc).find((candidate) => candidate.id === id);
  if (use && text !== undefined) changeLink(change, use, { text });
  const isPicture = state.doc.nodeAt(from)?.type.name === "picture" && to === from + 1;
  const end = to + (isPicture || text === undefined ? 0 : text.length - (to - from));
  const selection = isPicture
    ? NodeSelection.create(change.doc, from)
    : TextSelection.near(change.doc.resolve(end), -1);
  return change.setSelection(selection).setStoredMarks([]);
}

/** Puts new words in at the cursor, and links them. */
export function insertLinkedWords(state: EditorState, words: string, link: NewLink): Transaction {
  const { from, to, $from } = state.selection;
  const marks = schema.mark("link", { id: newId(), ...link }).addToSet($from.marks());
  return state.tr.replaceWith(from, to, schema.text(words, marks)).setStoredMarks([]);
}

/** Changes words, destination or description of a link; the cursor comes to stand behind it. */
export function editLink(state: EditorState, use: LinkUse, to: LinkChange): Transaction {
  const change = state.tr;
  changeLink(change, use, to);
  if (use.on === "words" && to.text !== undefined)
    change.setSelection(TextSelection.create(change.doc, use.from + to.text.length));
  return change;
}

/** Takes a link away and keeps its words; an address among them stays plain from then on. */
export function removeLink(state: EditorState, use: LinkUse): Transaction {
  const change = state.tr;
  unlink(change, use);
  if (use.on === "words" && isPlainlyAnAddress(use.text))
    change.addMark(use.from, use.to, schema.mark("plain"));
  return change.setStoredMarks([]);
}

/** Puts the selection on a link's words, its picture, or the picture that it is an area of. */
export function selectLink(state: EditorState, use: LinkUse): Transaction {
  const selection =
    use.on === "words"
      ? TextSelection.create(state.doc, use.from, use.to)
      : NodeSelection.create(state.doc, use.from);
  const change = state.tr.setSelection(selection).scrollIntoView();
  return use.on === "hotspot" ? tellLinkMarks(change, { hotspot: use.id }) : change;
}
