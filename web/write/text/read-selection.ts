import { Plugin, TextSelection, type Selection, type Transaction } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";

/**
 * Takes over the browser's selection at once. The editor hears of it by an event that comes a moment
 * later, and a command that is given before would act on the old one.
 */
export function readSelection(view: EditorView): void {
  const seen = browserSelection(view);
  if (seen && !seen.eq(view.state.selection)) view.dispatch(view.state.tr.setSelection(seen));
}

/**
 * What comes by itself, such as the state of a link that was asked, changes neither text nor selection. It takes
 * the author's newest selection along, which the editor would else set back where it has not heard of it yet.
 */
export function keepSelection(view: EditorView, transaction: Transaction): void {
  if (transaction.docChanged || transaction.selectionSet || view.composing) return;
  const seen = browserSelection(view);
  if (seen && !seen.eq(transaction.selection)) transaction.setSelection(seen);
}

/** The selection that the browser shows in the text; null where it has none there. */
function browserSelection(view: EditorView): Selection | null {
  const selection = document.getSelection();
  const { anchorNode, focusNode } = selection ?? {};
  // Selected pictures and table cells are the editor's own matter; the browser does not know of them.
  if (!view.hasFocus() || !(view.state.selection instanceof TextSelection)) return null;
  if (!anchorNode || !focusNode || !view.dom.contains(anchorNode) || !view.dom.contains(focusNode))
    return null;
  const { doc } = view.state;
  const anchor = view.posAtDOM(anchorNode, selection!.anchorOffset);
  const head = view.posAtDOM(focusNode, selection!.focusOffset);
  return TextSelection.between(doc.resolve(anchor), doc.resolve(head));
}

/** Reads the selection before every key that is a command; what is only typed goes where the browser has it. */
export const readSelectionFirst = new Plugin({
  props: {
    handleKeyDown(view, event) {
      const typed = event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey;
      if (!typed && !view.composing) readSelection(view);
      return false;
    },
  },
});
