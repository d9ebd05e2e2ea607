import { answerOf, api, type Job } from "./client";
import { followEvents } from "./server-events";

const ended = ["done", "cancelled", "failed"];

export function isUnderWay(job: Job | null): job is Job & { state: "waiting" | "running" } {
  return job !== null && !ended.includes(job.state);
}

/** Tells each state of a job until it has ended. @returns what ends it before */
export function followJob(job: Job, tell: (job: Job) => void): () => void {
  let latest = job;
  const end = followEvents<Job>(
    `/api/jobs/${job.id}/events`,
    (next) => {
      latest = next;
      if (!isUnderWay(next)) end();
      tell(next);
    },
    () => answerOf(api.GET("/api/jobs/{jobId}", { params: { path: { jobId: job.id } } })),
    (error) => tell({ ...latest, state: "failed", message: error.message }),
  );
  return end;
}

/** Follows a job to its end; where it is left, the job is cancelled. */
export function endOf(
  begun: Job,
  leaving: AbortSignal,
  tell: (job: Job) => void = () => undefined,
): Promise<Job> {
  return new Promise((resolve, reject) => {
    followJob(begun, (job) => {
      tell(job);
      if (!isUnderWay(job)) resolve(job);
    });
    leaving.addEventListener("abort", () => {
      answerOf(api.DELETE("/api/jobs/{jobId}", { params: { path: { jobId: begun.id } } })).catch(reject);
    });
  });
}
