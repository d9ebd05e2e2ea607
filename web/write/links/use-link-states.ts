import { useQuery } from "@tanstack/react-query";
import type { KnownAnswer } from "@vennet/core/checks/finding";
import { useMemo } from "react";
import { answerOf, api } from "../../api/client";
import { keys } from "../../api/keys";
import type { CardState } from "./card-context";

/** By destination what is known of it. */
export type LinkStates = ReadonlyMap<string, CardState & Omit<KnownAnswer, "state">>;

/**
 * The state of each address of a book, as the last reach run left it.
 * @param chapterId leaves those that are not looked at beside that chapter
 */
export function useLinkStates(bookId: string, chapterId?: string): LinkStates {
  const destinations = useQuery({
    queryKey: keys.destinations(bookId, chapterId),
    queryFn: () =>
      answerOf(
        api.GET("/api/books/{bookId}/destinations", {
          params: { path: { bookId }, ...(chapterId ? { query: { chapter: chapterId } } : {}) },
        }),
      ),
    // A planned run may have asked since.
    staleTime: 0,
  });
  return useMemo(
    () =>
      new Map(
        (destinations.data ?? []).map(
          ({ address, state, code, reason, movedTo, title, secure, endsAt, type, ...rest }) => {
            const { certificateEnds, change, lookedAt, keptCopy } = rest;
            return [
              address,
              {
                ...{ state, code: code ?? "", reason, movedTo, title, secure },
                ...{ endsAt, type, certificateEnds, change, lookedAt, keptCopy },
              },
            ];
          },
        ),
      ),
    [destinations.data],
  );
}
