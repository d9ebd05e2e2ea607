import { useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { answerOf, api, type Step } from "../api/client";
import { useBookChanges } from "../book-changes";
import { useUndo } from "../frame/undo-bar";
import { destinationQueries } from "../known-destinations";
import { plural } from "../parts/wording";

/** Everything on the screen that an action over many links makes stale. */
const staleAfterStep = [
  ...destinationQueries,
  "ledger",
  "chapters",
  "destinations",
  "steps",
  "versions",
  "mentions",
  "findings",
];

/** Tells the screen of an action over many links: says what was done, offers to undo it, reads anew. */
export function useStepDone(bookId: string): (step: Step) => void {
  const queries = useQueryClient();
  const offer = useUndo(({ offer }) => offer);
  return useCallback(
    (step: Step) => {
      const refresh = (chapters: Step["chapters"]): void => {
        for (const name of staleAfterStep) void queries.invalidateQueries({ queryKey: [name, bookId] });
        useBookChanges.getState().tell(chapters.map(({ chapterId }) => chapterId));
      };
      refresh(step.chapters);
      offer({
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
      });
    },
    [queries, bookId, offer],
  );
}
