import { isPlainlyAnAddress, recognise } from "@vennet/core/destination/recognise";
import { dropCursor } from "prosemirror-dropcursor";
import { gapCursor } from "prosemirror-gapcursor";
import { history } from "prosemirror-history";
import { keymap } from "prosemirror-keymap";
import type { Node } from "prosemirror-model";
import { EditorState, type Command } from "prosemirror-state";
import { tableEditing } from "prosemirror-tables";
import { EditorView } from "prosemirror-view";
import { editorKeys } from "./editor-keys";
import { linkWords, withoutOuterBlanks } from "./link-commands";
import { linkMarks } from "./link-marks";
import { noteNumbers } from "./note-numbers";
import { PictureView } from "./picture-view";
import { readSelectionFirst } from "./read-selection";
import { uniqueIds } from "./unique-ids";

export interface EditorCallbacks {
  onState: (state: EditorState, docChanged: boolean) => void;
  linkKeys: Record<string, Command>;
}

/** Makes the editor of one chapter's document. */
export function createEditor(
  place: HTMLElement,
  doc: Node,
  bookId: string,
  callbacks: EditorCallbacks,
): EditorView {
  const state = EditorState.create({
    doc,
    plugins: [
      readSelectionFirst,
      keymap(callbacks.linkKeys),
      ...editorKeys(),
      history(),
      tableEditing(),
      dropCursor({ color: "var(--blue)" }),
      gapCursor(),
      uniqueIds,
      linkMarks,
      noteNumbers,
    ],
  });
  const view: EditorView = new EditorView(place, {
    state,
    attributes: {
      class: "manuscript",
      role: "textbox",
      "aria-multiline": "true",
      "aria-label": "Text of the chapter",
      spellcheck: "true",
    },
    nodeViews: { picture: (node) => new PictureView(node, bookId) },
    // An address pasted onto selected words links them.
    handlePaste(view, event) {
      const text = event.clipboardData?.getData("text/plain").trim() ?? "";
      const { from, to } = withoutOuterBlanks(view.state);
      if (from === to || !isPlainlyAnAddress(text)) return false;
      view.dispatch(linkWords(view.state, from, to, recognise(text).destination));
      return true;
    },
    handleClick(_view, _position, event) {
      // A click puts the cursor into a link; following it has a key and a button of its own.
      if ((event.target as HTMLElement).closest("a")) event.preventDefault();
      return false;
    },
    dispatchTransaction(transaction) {
      const next = view.state.apply(transaction);
      view.updateState(next);
      callbacks.onState(next, transaction.docChanged);
    },
  });
  return view;
}
