import type { Pasted } from "@vennet/core/import/pasted/pasted";
import type { FileElsewhere } from "./files-of-pasted";
import type { DestinationNames } from "@vennet/core/destination/kinds/kind";
import { readChapter, withTitle, type ChapterJson } from "@vennet/core/manuscript/chapter";
import type { LinkUse } from "@vennet/core/manuscript/links";
import { redo, redoDepth, undo, undoDepth } from "prosemirror-history";
import { NodeSelection, type Command, type EditorState } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";
import { startTransition, useCallback, useEffect, useRef, useState, type RefObject } from "react";
import { tellText, useHistory, type OpenEditor } from "../../frame/history";
import { leaveFootprint, showPlace } from "../places/show-place";
import type { ChapterSaver } from "../saving/chapter-saver";
import { AfterFrame } from "./after-frame";
import { createEditor } from "./create-editor";
import { keepState, stateLeft } from "./left-states";
import { readSelection } from "./read-selection";

/** What the page around the editor may ask of it. */
export interface EditorHandle {
  rename: (title: string) => void;
  /** Goes to a place of the chapter; false where it has none of that id. */
  goTo: (place: string) => boolean;
}

/** What the editor asks of what stands around it. */
export interface EditorSurroundings {
  /** What the keys for links, places and saving do, by the keys. */
  keys: Record<string, (view: EditorView) => void>;
  onFollow: (view: EditorView, use: LinkUse) => void;
  onGoTo: (place: string) => void;
  onFiles: (view: EditorView, files: File[]) => void;
  onPasted: (view: EditorView, made: Pasted) => void;
  /** Text of another book was pasted, with files that are in that one. */
  onFilesElsewhere: (view: EditorView, files: readonly FileElsewhere[]) => void;
  /** What companion files and places are called now. */
  names: DestinationNames;
}

/**
 * The editor of one chapter's text, in an element. It lives as long as the opened text; a new text is a new editor.
 * What surrounds it may change from one drawing of the page to the next: the editor always asks the latest.
 */
export function useEditor({
  place,
  bookId,
  chapterId,
  language,
  document: json,
  unsent,
  saver,
  handle,
}: {
  place: RefObject<HTMLElement | null>;
  bookId: string;
  chapterId: string;
  /** The book’s, a BCP 47 tag. */
  language: string;
  document: ChapterJson;
  /** Whether the text is one that the server has not got yet. */
  unsent: boolean;
  saver: ChapterSaver;
  handle: (handle: EditorHandle | null) => void;
}): {
  view: EditorView | null;
  state: EditorState | null;
  /** Draws what stands around the text as it is at this moment. */
  showNow: () => void;
  surroundings: RefObject<EditorSurroundings | null>;
} {
  const [view, setView] = useState<EditorView | null>(null);
  const [state, setState] = useState<EditorState | null>(null);
  const surroundings = useRef<EditorSurroundings | null>(null);

  useEffect(() => {
    const keys = Object.keys(surroundings.current!.keys);
    const command =
      (key: string): Command =>
      (_state, _dispatch, editor) => {
        if (editor) surroundings.current!.keys[key]!(editor);
        return true;
      };
    const tell = (state: EditorState, isTyped: boolean): void =>
      tellText({ bookId, chapterId }, { undoDepth: undoDepth(state), redoDepth: redoDepth(state), isTyped });
    const editor: EditorView = createEditor(
      place.current!,
      readChapter(json),
      stateLeft(chapterId),
      { bookId, chapterId, language },
      {
        onState: (next, toSave) => {
          // The text is on the page already; what stands around it comes when that has been seen, and may be later
          // than the next key. The fields about a selected picture are bound to it, so they may not.
          if (next.selection instanceof NodeSelection) setState(next);
          else if (editor.hasFocus()) afterFrame.ask(() => startTransition(() => setState(editor.state)));
          // Who works in a card goes on there, and has to find it as the text is.
          else startTransition(() => setState(next));
          if (toSave) saver.changed(next.doc);
        },
        onHistory: tell,
        onFollow: (use) => surroundings.current!.onFollow(editor, use),
        onGoTo: (id) => surroundings.current!.onGoTo(id),
        onFiles: (files) => surroundings.current!.onFiles(editor, files),
        onPasted: (made) => surroundings.current!.onPasted(editor, made),
        onFilesElsewhere: (files) => surroundings.current!.onFilesElsewhere(editor, files),
        names: () => surroundings.current!.names,
        linkKeys: Object.fromEntries(keys.map((key) => [key, command(key)])),
      },
    );
    const afterFrame = new AfterFrame();
    setView(editor);
    setState(editor.state);
    tell(editor.state, false);
    const own: OpenEditor = {
      bookId,
      chapterId,
      undo: () => turnText(editor, undo),
      redo: () => turnText(editor, redo),
    };
    useHistory.setState({ editor: own });
    if (unsent) {
      saver.changed(editor.state.doc);
      saver.saveNow();
    }
    handle({
      goTo: (id) => {
        leaveFootprint(editor, chapterId);
        return showPlace(editor, id);
      },
      rename: (title) => {
        const renamed = withTitle(editor.state.doc, title).firstChild!;
        editor.dispatch(
          editor.state.tr.replaceWith(1, editor.state.doc.firstChild!.nodeSize - 1, renamed.content),
        );
      },
    });
    return () => {
      handle(null);
      keepState(chapterId, editor.state);
      if (useHistory.getState().editor === own) useHistory.setState({ editor: null });
      afterFrame.forget();
      editor.destroy();
      setView(null);
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [json]);

  const showNow = useCallback(() => view && setState(view.state), [view]);
  return { view, state, showNow, surroundings };
}

function turnText(editor: EditorView, command: Command): void {
  readSelection(editor);
  command(editor.state, editor.dispatch, editor);
  editor.focus();
}
