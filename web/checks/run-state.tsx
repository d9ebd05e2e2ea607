import type { Job, ReachRun } from "../api/client";
import { isUnderWay } from "../api/follow-job";
import { Problem } from "../parts/notice";
import { Progress } from "../parts/progress";
import { plural, shownDate } from "../parts/wording";

/** How far a run is, or what the last one came to. */
export function RunState({ run, last }: { run: Job | null; last: ReachRun | null }) {
  if (!run) return <p className="mt-2 text-faint">Nothing has been checked yet.</p>;
  if (isUnderWay(run)) {
    return (
      <div className="mt-4 border border-hairline bg-paper p-4">
        <div className="mb-2 flex flex-wrap justify-between gap-2">
          <span>
            {run.done} of {run.total || "…"} addresses checked
          </span>
          <span className="text-faint">{run.message}</span>
        </div>
        <Progress label="Addresses checked" done={run.done} total={run.total} />
      </div>
    );
  }
  if (run.state === "failed") return <Problem>{run.message}</Problem>;
  const isOfLast = last?.id === run.id;
  return (
    <p className="mt-2 text-faint" role="status">
      {run.state === "cancelled"
        ? `The last run was cancelled after ${run.done} of ${run.total} addresses. What it had learnt is kept.`
        : `The last run checked ${plural(run.total, "address", "addresses")}, each once: ${run.message}.`}
      {isOfLast && (
        <>
          {" "}
          <strong className={last.newlyBroken > 0 ? "text-red" : "font-normal"}>
            {last.newlyBroken > 0 ? `${last.newlyBroken} newly broken` : "None newly broken"}
          </strong>
          {last.wellAgain > 0 && `, ${last.wellAgain} well again`}, {shownDate(last.endedAt)}.
        </>
      )}
    </p>
  );
}
