import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { answerOf, api } from "../api/client";
import { keys } from "../api/keys";
import type { Run } from "./use-run";

// Milliseconds.
const usualPause = 1000;
/** So many times as long as the last answer took, nothing is asked: those of a long book are large. */
const restShare = 4;

/** All destinations of a book with what is known of them, which follow a run that is under way. */
export function useDestinations(bookId: string, { isUnderWay, job }: Run) {
  const took = useRef(0);
  const destinations = useQuery({
    queryKey: keys.destinations(bookId),
    queryFn: async () => {
      const began = performance.now();
      const answer = await answerOf(
        api.GET("/api/books/{bookId}/destinations", { params: { path: { bookId } } }),
      );
      took.current = performance.now() - began;
      return answer;
    },
    refetchInterval: isUnderWay ? () => Math.max(usualPause, restShare * took.current) : false,
  });
  const { refetch, dataUpdatedAt } = destinations;
  const done = isUnderWay ? job!.done : null;
  useEffect(() => {
    if (done === null) return;
    // Each time that the run tells of more answers, not a second later; what is on its way already is waited for.
    const due = dataUpdatedAt + restShare * took.current;
    const timer = setTimeout(() => void refetch({ cancelRefetch: false }), Math.max(0, due - Date.now()));
    return () => clearTimeout(timer);
  }, [done, refetch, dataUpdatedAt]);
  return destinations;
}
