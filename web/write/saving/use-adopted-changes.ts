import { readChapter } from "@vennet/core/manuscript/chapter";
import type { Node } from "prosemirror-model";
import type { EditorView } from "prosemirror-view";
import { useEffect, useRef } from "react";
import { answerOf, api } from "../../api/client";
import { useBookChanges } from "../../book-changes";
import { adoptText } from "../text/adopt-text";
import type { ChapterSaver } from "./chapter-saver";

function show(view: EditorView, text: Node): void {
  const change = adoptText(view.state, text);
  if (change) view.dispatch(change);
}

/** Shows what the server has changed of the open chapter by itself, in place of the open text. */
export function useAdoptedChanges(
  view: EditorView | null,
  { bookId, chapterId }: { bookId: string; chapterId: string },
  saver: ChapterSaver,
  tell: (problem: string) => void,
): void {
  const changes = useBookChanges();
  const seen = useRef(changes.count);
  useEffect(() => {
    if (!view) return;
    saver.editor = { text: () => view.state.doc, show: (text) => show(view, text) };
    return () => {
      saver.editor = null;
    };
  }, [view, saver]);
  useEffect(() => {
    if (!view || seen.current === changes.count) return;
    seen.current = changes.count;
    if (!changes.chapters.has(chapterId)) return;
    const path = { bookId, chapterId };
    answerOf(api.GET("/api/books/{bookId}/chapters/{chapterId}", { params: { path } })).then(
      (chapter) => {
        // Unsaved text meets the new one when it is saved, and the author chooses then.
        if (view.isDestroyed || saver.status.getState().kind !== "saved") return;
        if (chapter.revision <= saver.madeFrom) return;
        const text = readChapter(chapter.document);
        show(view, text);
        saver.adopt(chapter.revision, text);
      },
      (error: unknown) => tell((error as Error).message),
    );
  }, [view, changes, bookId, chapterId, saver, tell]);
}
