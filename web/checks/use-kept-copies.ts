import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answerOf, api, type Job } from "../api/client";
import { keys } from "../api/keys";
import { useStale } from "../api/stale";
import { isUnderWay } from "../api/follow-job";
import { useJob } from "../api/use-job";

/** The latest job that keeps copies of linked pages, and the ways to begin and to cancel one. */
export interface Keeping {
  job: Job | null;
  isUnderWay: boolean;
  problem: string | null;
  /** Keeps copies of these pages, or of all. */
  begin: (addresses?: string[]) => void;
  cancel: () => void;
}

export function useKeptCopies(bookId: string): Keeping {
  const queries = useQueryClient();
  const stale = useStale();
  const [problem, setProblem] = useState<string | null>(null);
  const params = { path: { bookId } };
  const latest = useQuery({
    queryKey: keys.latestKeeping(bookId),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/kept-copies", { params })),
  });
  const job = useJob(latest.data?.[0] ?? null, (now) => {
    if (!isUnderWay(now)) void stale("keptCopies");
  });
  const attempt = (work: () => Promise<unknown>): void => {
    setProblem(null);
    work().catch((error: unknown) => setProblem((error as Error).message));
  };
  return {
    job,
    isUnderWay: isUnderWay(job),
    problem,
    begin: (addresses) =>
      attempt(async () => {
        const body = addresses ? { addresses } : {};
        const begun = await answerOf(api.POST("/api/books/{bookId}/kept-copies", { params, body }));
        queries.setQueryData(keys.latestKeeping(bookId), [begun]);
      }),
    cancel: () =>
      attempt(async () => {
        if (job) await answerOf(api.DELETE("/api/jobs/{jobId}", { params: { path: { jobId: job.id } } }));
      }),
  };
}
