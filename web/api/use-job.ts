import { useEffect, useState } from "react";
import type { Job } from "./client";

const ended = ["done", "cancelled", "failed"];

export function isUnderWay(job: Job | null): job is Job & { state: "waiting" | "running" } {
  return job !== null && !ended.includes(job.state);
}

/** Follows a job by the server's events until it has ended. `onChange` hears of every change. */
export function useJob(first: Job | null, onChange: (job: Job) => void): Job | null {
  const [job, setJob] = useState<Job | null>(first);
  const id = first?.id ?? null;
  const begunUnderWay = isUnderWay(first);
  useEffect(() => {
    setJob(first);
    if (id === null || !begunUnderWay) return;
    const events = new EventSource(`/api/jobs/${id}/events`);
    events.onmessage = (event: MessageEvent<string>) => {
      const next = JSON.parse(event.data) as Job;
      setJob(next);
      onChange(next);
      if (ended.includes(next.state)) events.close();
    };
    return () => events.close();
    // A job is followed from its first sight on; its later states come by the events.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id, begunUnderWay]);
  return job;
}
