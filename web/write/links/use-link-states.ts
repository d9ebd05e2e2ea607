import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo } from "react";
import { answerOf, api } from "../../api/client";
import type { CardState } from "./margin-card";

/** By destination what is known of it. */
export type LinkStates = ReadonlyMap<string, CardState & { title: string | null; secure: string | null }>;

/** The state of each address of the book, as the last reach run left it. */
export function useLinkStates(bookId: string): LinkStates {
  const queries = useQueryClient();
  const destinations = useQuery({
    queryKey: ["destinations", bookId],
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/destinations", { params: { path: { bookId } } })),
  });
  useEffect(() => {
    void queries.invalidateQueries({ queryKey: ["destinations", bookId] });
  }, [queries, bookId]);
  return useMemo(
    () =>
      new Map(
        (destinations.data ?? []).map(({ address, state, reason, movedTo, title, secure }) => [
          address,
          { state, reason, movedTo, title, secure },
        ]),
      ),
    [destinations.data],
  );
}
