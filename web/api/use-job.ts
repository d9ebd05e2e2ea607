import { useEffect, useState } from "react";
import type { Job } from "./client";
import { followJob, isUnderWay } from "./follow-job";

/** Follows a job by the server's events until it has ended. `onChange` hears of every change. */
export function useJob(first: Job | null, onChange: (job: Job) => void): Job | null {
  const [job, setJob] = useState<Job | null>(first);
  const id = first?.id ?? null;
  const begunUnderWay = isUnderWay(first);
  useEffect(() => {
    setJob(first);
    if (!first || !begunUnderWay) return;
    return followJob(first, (next) => {
      setJob(next);
      onChange(next);
    });
    // A job is followed from its first sight on; its later states come by the events.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id, begunUnderWay]);
  return job;
}
