import type { EditorState } from "prosemirror-state";

const mostKept = 20;
const states = new Map<string, EditorState>();

/** Keeps the state of an editor that is left, so that what was done in it can be taken back when it is opened again. */
export function keepState(chapterId: string, state: EditorState): void {
  states.delete(chapterId);
  states.set(chapterId, state);
  const [oldest] = states.keys();
  if (states.size > mostKept) states.delete(oldest!);
}

/** The state in which a chapter was left in this window, or null. */
export function stateLeft(chapterId: string): EditorState | null {
  return states.get(chapterId) ?? null;
}
