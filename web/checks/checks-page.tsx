import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answerOf, api, type CheckedDestination, type Job, type LinkState } from "../api/client";
import { isUnderWay, useJob } from "../api/use-job";
import { useBook } from "../book-page";
import { Button } from "../parts/button";
import { Problem, Waiting } from "../parts/notice";
import { Progress } from "../parts/progress";
import { linkStates, StateMark } from "../parts/state-mark";
import { plural } from "../parts/wording";
import { ChecksFrame } from "./checks-frame";
import { DestinationRow } from "./destination-row";

/** Asks every web destination of the book, and shows what came of it with the evidence. */
export function ChecksPage() {
  const book = useBook();
  const queries = useQueryClient();
  const params = { path: { bookId: book.id } };
  const [only, setOnly] = useState<LinkState | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const runs = useQuery({
    queryKey: ["reach", book.id],
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/reach", { params })),
  });
  const run = useJob(runs.data?.[0] ?? null, (job) => {
    if (isUnderWay(job)) return;
    void queries.invalidateQueries({ queryKey: ["destinations", book.id] });
    void queries.invalidateQueries({ queryKey: ["books"] });
  });
  const destinations = useQuery({
    queryKey: ["destinations", book.id],
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/destinations", { params })),
    // While a run is under way the table follows it.
    refetchInterval: isUnderWay(run) ? 1000 : false,
  });

  const begin = async (): Promise<void> => {
    setProblem(null);
    try {
      const job = await answerOf(api.POST("/api/books/{bookId}/reach", { params }));
      queries.setQueryData(["reach", book.id], [job]);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const cancel = async (job: Job): Promise<void> => {
    try {
      await answerOf(api.DELETE("/api/jobs/{jobId}", { params: { path: { jobId: job.id } } }));
    } catch (error) {
      setProblem((error as Error).message);
    }
  };

  const all = destinations.data ?? [];
  const shown = inOrderOfNeed(all.filter((one) => only === null || one.state === only));
  return (
    <ChecksFrame>
      <div className="h-full overflow-y-auto">
        <div className="mx-auto max-w-6xl px-6 py-8">
          <div className="flex flex-wrap items-center gap-4">
            <h1 className="mr-auto font-serif text-3xl font-semibold">Checks</h1>
            {isUnderWay(run) ? (
              <Button onClick={() => void cancel(run)}>Cancel the run</Button>
            ) : (
              <Button kind="main" disabled={all.length === 0} onClick={() => void begin()}>
                Ask all addresses
              </Button>
            )}
          </div>
          {problem && <Problem>{problem}</Problem>}
          <RunState run={run} />
          {destinations.isPending && <Waiting what="Reading the links" />}
          {destinations.error && (
            <Problem action={<Button onClick={() => void destinations.refetch()}>Try again</Button>}>
              {destinations.error.message}
            </Problem>
          )}
          {destinations.data && all.length === 0 && (
            <p className="mt-6 border border-hairline bg-paper p-10 font-serif text-lg">
              The book has no web links yet. Select some words in Write, and give them a destination.
            </p>
          )}
          {all.length > 0 && (
            <>
              <StateFilter destinations={all} only={only} onChange={setOnly} />
              <div className="mt-3 border border-hairline bg-paper">
                {shown.map((destination) => (
                  <DestinationRow key={destination.address} bookId={book.id} destination={destination} />
                ))}
              </div>
            </>
          )}
        </div>
      </div>
    </ChecksFrame>
  );
}

function RunState({ run }: { run: Job | null }) {
  if (!run) return <p className="mt-2 text-faint">Nothing has been asked yet.</p>;
  if (isUnderWay(run)) {
    return (
      <div className="mt-4 border border-hairline bg-paper p-4">
        <div className="mb-2 flex flex-wrap justify-between gap-2">
          <span>
            {run.done} of {run.total || "…"} addresses asked
          </span>
          <span className="text-faint">{run.message}</span>
        </div>
        <Progress label="Addresses asked" done={run.done} total={run.total} />
      </div>
    );
  }
  if (run.state === "failed") return <Problem>{run.message}</Problem>;
  return (
    <p className="mt-2 text-faint" role="status">
      {run.state === "cancelled"
        ? `The last run was cancelled after ${run.done} of ${run.total} addresses. What it had learnt is kept.`
        : `The last run asked ${plural(run.total, "address", "addresses")}, each once: ${run.message}.`}
    </p>
  );
}

function StateFilter({
  destinations,
  only,
  onChange,
}: {
  destinations: CheckedDestination[];
  only: LinkState | null;
  onChange: (only: LinkState | null) => void;
}) {
  const counts = linkStates.map(
    (state) => [state, destinations.filter((one) => one.state === state).length] as const,
  );
  return (
    <div role="group" aria-label="Show" className="mt-6 flex flex-wrap gap-x-5 gap-y-1 text-sm">
      <button
        type="button"
        aria-pressed={only === null}
        onClick={() => onChange(null)}
        className="py-1 underline-offset-4 aria-pressed:font-semibold aria-pressed:underline"
      >
        All {destinations.length}
      </button>
      {counts
        .filter(([, count]) => count > 0)
        .map(([state, count]) => (
          <button
            key={state}
            type="button"
            aria-pressed={only === state}
            onClick={() => onChange(only === state ? null : state)}
            className="py-1 underline-offset-4 aria-pressed:font-semibold aria-pressed:underline"
          >
            <StateMark state={state} count={count} />
          </button>
        ))}
    </div>
  );
}

const need: LinkState[] = ["broken", "moved", "unsure", "guarded", "unchecked", "sound"];

function inOrderOfNeed(destinations: CheckedDestination[]): CheckedDestination[] {
  return [...destinations].sort((a, b) => need.indexOf(a.state) - need.indexOf(b.state));
}
