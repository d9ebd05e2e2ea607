import { useCallback } from "react";
import { answerOf, api, type Step } from "../api/client";
import { useStale } from "../api/stale";
import { useBookChanges } from "../book-changes";
import { offerUndo } from "../frame/undo-bar";
import { plural } from "../parts/wording";

/** Tells the screen of an action over many links: says what was done, offers to undo it, reads anew. */
export function useStepDone(bookId: string): (step: Step) => void {
  const stale = useStale();
  return useCallback(
    (step: Step) => {
      const refresh = (chapters: Step["chapters"]): void => {
        void stale("step");
        useBookChanges.getState().tell(chapters.map(({ chapterId }) => chapterId));
      };
      refresh(step.chapters);
      offerUndo({
        bookId,
        message: step.summary,
        undo: async () => {
          const { undone, left } = await answerOf(
            api.POST("/api/books/{bookId}/steps/{stepId}/undo", {
              params: { path: { bookId, stepId: step.id } },
            }),
          );
          refresh(step.chapters);
          return left === 0
            ? `${plural(undone, "link is", "links are")} as before.`
            : `${plural(undone, "link is", "links are")} as before; ${left} had been changed since and stay.`;
        },
        redo: async () => {
          await answerOf(
            api.POST("/api/books/{bookId}/steps/{stepId}/redo", {
              params: { path: { bookId, stepId: step.id } },
            }),
          );
          refresh(step.chapters);
        },
      });
    },
    [stale, bookId],
  );
}
