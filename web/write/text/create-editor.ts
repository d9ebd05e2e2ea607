import type { DestinationNames } from "@vennet/core/destination/kinds/kind";
import { isPlainlyAnAddress, recognise } from "@vennet/core/destination/recognise";
import { linkUses, type LinkUse } from "@vennet/core/manuscript/links";
import type { Pasted } from "@vennet/core/import/pasted/pasted";
import { languageDirection } from "@vennet/core/manuscript/direction";
import { dropCursor } from "prosemirror-dropcursor";
import { gapCursor } from "prosemirror-gapcursor";
import { history, isHistoryTransaction } from "prosemirror-history";
import { keymap } from "prosemirror-keymap";
import type { Node } from "prosemirror-model";
import { EditorState, TextSelection, type Command } from "prosemirror-state";
import { tableEditing } from "prosemirror-tables";
import { EditorView } from "prosemirror-view";
import { focusReturns } from "../../frame/kept-focus";
import { adopted, adoptText } from "./adopt-text";
import { autoLink } from "./auto-link";
import { formerIds } from "./block-kinds";
import { directions } from "./directions";
import { editorKeys } from "./editor-keys";
import { withoutOwnLanguage } from "./language-commands";
import { linkWords, selectLink, wordsOfSelection } from "./link-commands";
import { linkEnds } from "./link-ends";
import { linkMarks } from "./link-marks";
import { linkTips } from "./link-tips";
import { bookNumbers } from "./book-numbers";
import { madeAnchor } from "./made-anchor";
import { clipboardSerializer } from "./copy-to-clipboard";
import type { FileElsewhere } from "./files-of-pasted";
import { clipboardParser } from "./paste-from-elsewhere";
import { pasteIds } from "./paste-ids";
import { wordsInCopies } from "./words-in-copies";
import { wordsTypedOver } from "./words-typed-over";
import { pastedNotes } from "./pasted-notes";
import { PictureView } from "../pictures/picture-view";
import { keepSelection, readSelectionFirst } from "./read-selection";
import { ReferenceView } from "./reference-view";
import { selectedNodes } from "./selected-nodes";
import { SignpostsView } from "./signposts-view";
import { taskBoxes } from "./task-boxes";
import { uniqueIds } from "./unique-ids";
import { writablePaste } from "./writable-paste";

export interface EditorCallbacks {
  onState: (state: EditorState, docChanged: boolean) => void;
  /** What can be taken back may be other things now. `isTyped`: by a new change of the text. */
  onHistory: (state: EditorState, isTyped: boolean) => void;
  /** A link was clicked with the modifier key held. */
  onFollow: (use: LinkUse) => void;
  /** A signpost, a return link or a cross-reference was clicked with the modifier key held. */
  onGoTo: (place: string) => void;
  /** Files were dropped on the text, or pasted into it. */
  onFiles: (files: File[]) => void;
  /** Text of another program or page was pasted. */
  onPasted: (made: Pasted) => void;
  onFilesElsewhere: (files: readonly FileElsewhere[]) => void;
  /** What companion files and places are called at this moment. */
  names: () => DestinationNames;
  linkKeys: Record<string, Command>;
}

/** So many changes of a chapter can be taken back. */
const mostUndone = 1000;

/**
 * Makes the editor of one chapter's document.
 * @param before the state of the editor that the chapter had last, where it had one: its changes can still be taken back
 */
export function createEditor(
  place: HTMLElement,
  doc: Node,
  before: EditorState | null,
  { bookId, chapterId, language }: { bookId: string; chapterId: string; language: string },
  callbacks: EditorCallbacks,
): EditorView {
  const plugins = [
    readSelectionFirst,
    keymap(callbacks.linkKeys),
    // Before Enter divides the paragraph.
    autoLink,
    ...editorKeys(),
    history({ depth: mostUndone }),
    tableEditing(),
    dropCursor({ color: "var(--blue)" }),
    gapCursor(),
    wordsTypedOver,
    uniqueIds,
    formerIds,
    madeAnchor,
    selectedNodes,
    linkEnds,
    taskBoxes,
    writablePaste,
    pasteIds,
    pastedNotes,
    wordsInCopies,
    linkMarks,
    linkTips(callbacks.names),
    bookNumbers(chapterId),
    directions(languageDirection(language)),
  ];
  const state = before ? goneOn(before, doc).reconfigure({ plugins }) : EditorState.create({ doc, plugins });
  const view: EditorView = new EditorView(place, {
    state,
    attributes: {
      class: "manuscript",
      role: "textbox",
      "aria-multiline": "true",
      "aria-label": "Text of the chapter",
      spellcheck: "true",
      lang: language,
      dir: languageDirection(language),
    },
    nodeViews: {
      picture: (node, editor, _position, decorations) =>
        new PictureView(
          node,
          bookId,
          callbacks.names,
          (id) => {
            const use = linkUses(editor.state.doc).find((candidate) => candidate.id === id);
            if (use) editor.dispatch(selectLink(editor.state, use));
            editor.focus();
          },
          decorations,
        ),
      cross_reference: (node, _editor, _position, decorations) =>
        new ReferenceView(document.createElement("span"), node, decorations),
      signposts: (node, _editor, _position, decorations) =>
        new SignpostsView(document.createElement("div"), node, decorations),
    },
    handleDOMEvents: {
      [focusReturns](editor, event) {
        // Its own way puts the cursor where it was, at once.
        event.preventDefault();
        editor.focus();
        return true;
      },
    },
    clipboardParser: clipboardParser(bookId, callbacks.onPasted, callbacks.onFilesElsewhere),
    clipboardSerializer: clipboardSerializer(bookId),
    transformPasted: (slice) => withoutOwnLanguage(slice, language),
    handleDrop(view, event) {
      const files = [...(event.dataTransfer?.files ?? [])];
      if (files.length === 0) return false;
      const at = view.posAtCoords({ left: event.clientX, top: event.clientY });
      if (at) view.dispatch(view.state.tr.setSelection(TextSelection.near(view.state.doc.resolve(at.pos))));
      event.preventDefault();
      callbacks.onFiles(files);
      return true;
    },
    // An address pasted onto selected words links them.
    handlePaste(view, event) {
      const files = [...(event.clipboardData?.files ?? [])];
      // What is copied from a page may bring a picture of itself beside its text.
      if (files.length > 0 && !event.clipboardData!.types.some((type) => type.startsWith("text/"))) {
        callbacks.onFiles(files);
        return true;
      }
      const text = event.clipboardData?.getData("text/plain").trim() ?? "";
      const { from, to } = wordsOfSelection(view.state);
      if (from === to || !isPlainlyAnAddress(text)) return false;
      const { destination } = recognise(text);
      view.dispatch(linkWords(view.state, from, to, { destination, description: null }));
      return true;
    },
    handleClick(view, position, event) {
      const goto = (event.target as HTMLElement).closest<HTMLElement>("[data-goto]");
      if (goto && (event.ctrlKey || event.metaKey)) {
        callbacks.onGoTo(goto.dataset["goto"]!);
        return true;
      }
      // A click puts the cursor into a link; following it takes a key, a button, or the modifier.
      if (!(event.target as HTMLElement).closest("a")) return false;
      event.preventDefault();
      const use = linkUses(view.state.doc).find(({ from, to }) => from <= position && position <= to);
      if (!use || !(event.ctrlKey || event.metaKey)) return false;
      callbacks.onFollow(use);
      return true;
    },
    dispatchTransaction(transaction) {
      keepSelection(view, transaction);
      const next = view.state.apply(transaction);
      view.updateState(next);
      if (transaction.docChanged)
        callbacks.onHistory(
          next,
          !isHistoryTransaction(transaction) && transaction.getMeta("addToHistory") !== false,
        );
      callbacks.onState(next, transaction.docChanged && !transaction.getMeta(adopted));
    },
  });
  return view;
}

/** A former state of a chapter with the text that it has now. */
function goneOn(before: EditorState, doc: Node): EditorState {
  const change = adoptText(before, doc);
  return change ? before.apply(change) : before;
}
