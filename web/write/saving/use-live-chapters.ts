import { useEffect } from "react";
import { answerOf, api, type ChapterRevision } from "../../api/client";
import { followEvents } from "../../api/server-events";
import { useStale } from "../../api/stale";
import { useBookChanges } from "../../book-changes";
import type { ChapterSaver } from "./chapter-saver";

/**
 * Follows what other windows save of the book: the open chapter takes it over, and what is told of the others is read
 * again. Only while the window is seen, since a browser opens few such connections at once.
 */
export function useLiveChapters(bookId: string, chapterId: string | null, saver: ChapterSaver | null): void {
  const stale = useStale();
  useEffect(() => {
    if (!saver) return;
    let known: ChapterRevision[] | null = null;
    let end = (): void => undefined;
    const meet = (): void => {
      const open = known?.find(({ id }) => id === chapterId);
      const isBusy = saver.status.getState().kind !== "saved";
      if (open && !isBusy && open.revision > saver.madeFrom) useBookChanges.getState().tell([open.id]);
    };
    const take = (chapters: ChapterRevision[]): void => {
      const before = known;
      known = chapters;
      meet();
      if (!before) return;
      if (listOf(before) !== listOf(chapters)) void stale("chapters");
      const others = chapters.filter(({ id }) => id !== chapterId);
      const wasAt = new Map(before.map(({ id, revision }) => [id, revision]));
      if (others.some(({ id, revision }) => wasAt.get(id) !== revision)) void stale("text");
    };
    const follow = (): void => {
      end();
      end = () => undefined;
      if (document.visibilityState === "hidden") return;
      end = followEvents<ChapterRevision[]>(
        `/api/books/${bookId}/chapters/events`,
        take,
        () => answerOf(api.GET("/api/books/{bookId}/chapters", { params: { path: { bookId } } })),
        // A book that is gone, or a session that has ended, is told by what else is asked.
        () => undefined,
      );
    };
    follow();
    document.addEventListener("visibilitychange", follow);
    // What came while this window was saving is met when it has.
    const unsubscribe = saver.status.subscribe(meet);
    return () => {
      end();
      document.removeEventListener("visibilitychange", follow);
      unsubscribe();
    };
  }, [bookId, chapterId, saver, stale]);
}

/** The chapters and their names in their order. */
function listOf(chapters: readonly ChapterRevision[]): string {
  return JSON.stringify(chapters.map(({ id, title }) => [id, title]));
}
