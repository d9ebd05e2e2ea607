import type { Job } from "../api/client";
import { Button } from "../parts/button";
import { Progress } from "../parts/progress";

/** An export that is under way: what is done at this moment, how far it has come, and a way to end it. */
export function UnderWay({ job, onCancel }: { job: Job; onCancel: () => void }) {
  // What is done is announced; the pages that pass are only seen.
  const [stage, passed] = job.message.split(": ");
  return (
    <div className="border border-hairline bg-paper p-4">
      <div className="mb-2 flex items-center justify-between gap-2">
        <span>
          <span role="status">{stage || "Waiting for its turn"} …</span>
          {passed && <span className="ml-2 text-faint tabular-nums">{passed}</span>}
        </span>
        <Button onClick={onCancel}>Cancel</Button>
      </div>
      <Progress label="Export" done={job.done} total={job.total} />
    </div>
  );
}
