import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api } from "../../api/client";
import { useStale } from "../../api/stale";
import { keys } from "../../api/keys";

/** The findings of a book that its author keeps on purpose, and how to accept one and take that back. */
export interface Acceptances {
  /** Why a finding may stay; null where it was not accepted. */
  reasonFor: (subject: string, rule: string) => string | null;
  accept: (subject: string, rule: string, reason: string) => Promise<void>;
  takeBack: (subject: string, rule: string) => Promise<void>;
}

/** `settle` saves the open text, since an acceptance holds as long as its link is as the server knows it. */
export function useAcceptances(bookId: string, settle: () => Promise<void>): Acceptances {
  const stale = useStale();
  const { data } = useQuery({
    queryKey: keys.acceptances(bookId),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/acceptances", { params: { path: { bookId } } })),
  });
  return useMemo(() => {
    const reasons = new Map((data ?? []).map(({ subject, rule, reason }) => [`${subject} ${rule}`, reason]));
    return {
      reasonFor: (subject, rule) => reasons.get(`${subject} ${rule}`) ?? null,
      accept: async (subject, rule, reason) => {
        const body = { subject, rule, reason };
        await settle();
        await answerOf(api.PUT("/api/books/{bookId}/acceptances", { params: { path: { bookId } }, body }));
        await stale("acceptances");
      },
      takeBack: async (subject, rule) => {
        const path = { bookId, subject, rule };
        await answerOf(api.DELETE("/api/books/{bookId}/acceptances/{subject}/{rule}", { params: { path } }));
        await stale("acceptances");
      },
    };
  }, [data, stale, bookId, settle]);
}
