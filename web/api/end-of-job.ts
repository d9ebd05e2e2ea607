import { answerOf, api, type Job } from "./client";

/** Follows a job to its end; where it is left, the job is cancelled. */
export function endOf(
  begun: Job,
  leaving: AbortSignal,
  tell: (job: Job) => void = () => undefined,
): Promise<Job> {
  return new Promise((resolve, reject) => {
    const events = new EventSource(`/api/jobs/${begun.id}/events`);
    events.onmessage = (event: MessageEvent<string>) => {
      const job = JSON.parse(event.data) as Job;
      tell(job);
      if (!["done", "cancelled", "failed"].includes(job.state)) return;
      events.close();
      resolve(job);
    };
    leaving.addEventListener("abort", () => {
      answerOf(api.DELETE("/api/jobs/{jobId}", { params: { path: { jobId: begun.id } } })).catch(reject);
    });
  });
}
