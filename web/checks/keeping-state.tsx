import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { Progress } from "../parts/progress";
import type { Keeping } from "./use-kept-copies";

/** How far the keeping of copies is, or what came of it. */
export function KeepingState({ job, isUnderWay, problem, cancel }: Keeping) {
  if (problem) return <Problem>{problem}</Problem>;
  if (!job) return null;
  if (isUnderWay)
    return (
      <div className="mt-4 border border-hairline bg-paper p-4">
        <div className="mb-2 flex flex-wrap items-baseline justify-between gap-2">
          <span>
            {job.done} of {job.total || "…"} copies
          </span>
          <span className="min-w-0 truncate text-faint">{job.message}</span>
          <Button kind="quiet" onClick={cancel}>
            Cancel
          </Button>
        </div>
        <Progress label="Copies kept" done={job.done} total={job.total} />
      </div>
    );
  if (job.state === "failed") return <Problem>{job.message}</Problem>;
  return (
    <p role="status" className="mt-1 text-faint [overflow-wrap:anywhere]">
      {job.state === "cancelled" ? "The keeping of copies was cancelled. What was kept stays." : job.message}
    </p>
  );
}
