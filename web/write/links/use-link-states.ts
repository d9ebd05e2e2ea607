import { useQuery } from "@tanstack/react-query";
import type { KnownAnswer } from "@vennet/core/checks/finding";
import { useEffect, useMemo } from "react";
import { answerOf, api } from "../../api/client";
import { useStale } from "../../api/stale";
import { keys } from "../../api/keys";
import type { CardState } from "./card-context";

/** By destination what is known of it. */
export type LinkStates = ReadonlyMap<string, CardState & Omit<KnownAnswer, "state">>;

/** The state of each address of the book, as the last reach run left it. */
export function useLinkStates(bookId: string): LinkStates {
  const stale = useStale();
  const destinations = useQuery({
    queryKey: keys.destinations(bookId),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/destinations", { params: { path: { bookId } } })),
  });
  useEffect(() => {
    void stale("lookAgain");
  }, [stale, bookId]);
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
