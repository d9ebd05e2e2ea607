import { useEffect } from "react";
import type { ChapterRevision } from "../../api/client";
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
    let events: EventSource | null = null;
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
      events?.close();
      events = null;
      if (document.visibilityState === "hidden") return;
      events = new EventSource(`/api/books/${bookId}/chapters/events`);
      events.onmessage = (event: MessageEvent<string>) => take(JSON.parse(event.data) as ChapterRevision[]);
    };
    follow();
    document.addEventListener("visibilitychange", follow);
    // What came while this window was saving is met when it has.
    const unsubscribe = saver.status.subscribe(meet);
    return () => {
      events?.close();
      document.removeEventListener("visibilitychange", follow);
      unsubscribe();
    };
  }, [bookId, chapterId, saver, stale]);
}

/** The chapters and their names in their order. */
function listOf(chapters: readonly ChapterRevision[]): string {
  return JSON.stringify(chapters.map(({ id, title }) => [id, title]));
}
