import { Plugin, TextSelection } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";

/**
 * Takes over the browser's selection at once. The editor hears of it by an event that comes a moment
 * later, and a command that is given before would act on the old one.
 */
export function readSelection(view: EditorView): void {
  const selection = document.getSelection();
  const { anchorNode, focusNode } = selection ?? {};
  // Selected pictures and table cells are the editor's own matter; the browser does not know of them.
  if (!view.hasFocus() || !(view.state.selection instanceof TextSelection)) return;
  if (!anchorNode || !focusNode || !view.dom.contains(anchorNode) || !view.dom.contains(focusNode)) return;
  const { doc } = view.state;
  const anchor = view.posAtDOM(anchorNode, selection!.anchorOffset);
  const head = view.posAtDOM(focusNode, selection!.focusOffset);
  const seen = TextSelection.between(doc.resolve(anchor), doc.resolve(head));
  if (!seen.eq(view.state.selection)) view.dispatch(view.state.tr.setSelection(seen));
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
