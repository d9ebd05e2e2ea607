import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answerOf, api, type Job } from "../api/client";
import { useStale } from "../api/stale";
import { keys } from "../api/keys";
import { isUnderWay } from "../api/follow-job";
import { useJob } from "../api/use-job";

/** The latest run over a book's destinations, and the ways to begin and to cancel one. */
export interface Run {
  job: Job | null;
  isUnderWay: boolean;
  problem: string | null;
  begin: (ask: { which?: "all" | "due"; addresses?: string[] }) => Promise<void>;
  cancel: () => Promise<void>;
}

export function useRun(bookId: string): Run {
  const queries = useQueryClient();
  const stale = useStale();
  const [problem, setProblem] = useState<string | null>(null);
  const params = { path: { bookId } };
  const runs = useQuery({
    queryKey: keys.latestRun(bookId),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/reach", { params })),
    // A planned run begins by itself.
    staleTime: 0,
  });
  const job = useJob(runs.data?.[0] ?? null, (now) => {
    if (isUnderWay(now)) return;
    void stale("run");
  });
  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    setProblem(null);
    try {
      await work();
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return {
    job,
    isUnderWay: isUnderWay(job),
    problem,
    begin: (body) =>
      attempt(async () => {
        const begun = await answerOf(api.POST("/api/books/{bookId}/reach", { params, body }));
        queries.setQueryData(keys.latestRun(bookId), [begun]);
      }),
    cancel: () =>
      attempt(async () => {
        if (job) await answerOf(api.DELETE("/api/jobs/{jobId}", { params: { path: { jobId: job.id } } }));
      }),
  };
}

/** What the book's runs came to, the oldest first. */
export function useRuns(bookId: string) {
  return useQuery({
    queryKey: keys.runs(bookId),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/reach/runs", { params: { path: { bookId } } })),
  });
}
