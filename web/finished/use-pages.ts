import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useRef, useState } from "react";
import { answerOf, api, ApiError, type FinishedPageRow } from "../api/client";
import { keys } from "../api/keys";
import { useStale } from "../api/stale";
import { telling } from "../frame/history";
import { changedLinks, type PageOfLinks } from "./changed-links";
import { useTold } from "../parts/not-read";

/** A page with its links, as it is kept. */
export interface KeptPage<Page extends PageOfLinks> {
  id: string;
  revision: number;
  document: Page;
}

/** The pages of a finished file, and how their links are changed. */
export interface Pages<Page extends PageOfLinks> {
  pages: readonly KeptPage<Page>[] | null;
  problem: string | null;
  again: () => void;
  /** Whether something is on its way to the server. */
  isSaving: boolean;
  /** Changes pages as one thing that is done, which undo takes back. */
  change: (to: readonly Page[], message: string) => void;
}

/** The pages of a finished file; each change is shown at once, kept on the server, and can be taken back. */
export function usePages<Page extends PageOfLinks>(bookId: string): Pages<Page> {
  const queries = useQueryClient();
  const stale = useStale();
  const key = keys.finishedPages(bookId);
  const [problem, setProblem] = useState<string | null>(null);
  const [underWay, setUnderWay] = useState(0);
  const line = useRef<Promise<unknown>>(Promise.resolve());
  const asked = useQuery({
    queryKey: key,
    queryFn: async () => {
      const rows = await answerOf(
        api.GET("/api/books/{bookId}/finished/pages", { params: { path: { bookId } } }),
      );
      return rows as (FinishedPageRow & KeptPage<Page>)[];
    },
    refetchOnWindowFocus: false,
  });

  const now = useCallback(
    (number: number): KeptPage<Page> =>
      queries.getQueryData<KeptPage<Page>[]>(keys.finishedPages(bookId))![number - 1]!,
    [queries, bookId],
  );
  const put = useCallback(
    (number: number, part: Partial<KeptPage<Page>>): void => {
      queries.setQueryData<KeptPage<Page>[]>(keys.finishedPages(bookId), (all) =>
        all?.map((page, i) => (i === number - 1 ? { ...page, ...part } : page)),
      );
    },
    [queries, bookId],
  );

  /** Makes one state of some pages into another. */
  const write = useCallback(
    async (from: readonly Page[], to: readonly Page[]): Promise<void> => {
      for (const [i, target] of to.entries())
        put(target.number, { document: changedLinks(now(target.number).document, from[i]!, target) });
      const numbers = to.map(({ number }) => number);
      setUnderWay((count) => count + 1);
      const work = line.current.then(async () => {
        for (const number of numbers) {
          const { id, revision, document } = now(number);
          const saved = await answerOf(
            api.PUT("/api/books/{bookId}/chapters/{chapterId}", {
              params: { path: { bookId, chapterId: id } },
              body: { revision, document: document as unknown as Record<string, unknown> },
            }),
          );
          put(number, { revision: saved.revision });
        }
        setProblem(null);
        await stale("text");
      });
      // What comes after waits, and is tried whatever became of this.
      line.current = work.catch(() => undefined);
      try {
        await work;
      } finally {
        setUnderWay((count) => count - 1);
      }
    },
    [bookId, now, put, stale],
  );

  const fail = useCallback(
    (error: unknown): void => {
      const isOld = error instanceof ApiError && error.code === "old-revision";
      setProblem(
        isOld
          ? "This page was changed in another window in the meantime. It is shown as it is now; make your change again."
          : `The change is not kept: ${(error as Error).message}`,
      );
      void queries.invalidateQueries({ queryKey: keys.finishedPages(bookId) });
    },
    [queries, bookId],
  );

  const change = useCallback(
    (to: readonly Page[], message: string): void => {
      const from = to.map(({ number }) => now(number).document);
      telling(write(from, to), (made) => ({
        bookId,
        message,
        undo: async () => {
          await made;
          await write(to, from);
        },
        redo: () => write(from, to),
      })).catch(fail);
    },
    [bookId, now, write, fail],
  );

  useTold(asked.error);
  return {
    pages: asked.data ?? null,
    problem: problem ?? asked.error?.message ?? null,
    again: () => {
      setProblem(null);
      void asked.refetch();
    },
    isSaving: underWay > 0,
    change,
  };
}
