import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo } from "react";
import { answerOf, api } from "../../api/client";
import type { CardState } from "./margin-card";

/** The state of each address of the book, as the last reach run left it. */
export function useLinkStates(bookId: string): Map<string, CardState> {
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
        (destinations.data ?? []).map(({ address, state, reason, movedTo }) => [
          address,
          { state, reason, movedTo },
        ]),
      ),
    [destinations.data],
  );
}
