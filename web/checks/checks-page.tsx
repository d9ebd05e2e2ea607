import { useState } from "react";
import type { CheckedDestination, LinkState } from "../api/client";
import { useBook } from "../book-page";
import { Button } from "../parts/button";
import { EmptyPage } from "../parts/empty-page";
import { Problem, Waiting } from "../parts/notice";
import { ShowMore, useFirstOf } from "../parts/show-more";
import { linkStates, StateMark } from "../parts/state-mark";
import { ChecksFrame } from "./checks-frame";
import { DestinationRow } from "./destination-row";
import { KeepingState } from "./keeping-state";
import { RunState } from "./run-state";
import { useDestinations } from "./use-destinations";
import { useHeldOrder } from "./use-held-order";
import { useKeptCopies } from "./use-kept-copies";
import { useRun, useRuns } from "./use-run";
import { NotRead } from "../parts/not-read";

/** Asks every destination of the book that can be asked, and shows what came of it with the evidence. */
export function ChecksPage() {
  const book = useBook();
  const [only, setOnly] = useState<LinkState | null>(null);
  const run = useRun(book.id);
  const keeping = useKeptCopies(book.id);
  const last = useRuns(book.id).data?.at(-1) ?? null;
  const destinations = useDestinations(book.id, run);
  const all = destinations.data ?? [];
  const listed = useHeldOrder(
    inOrderOfNeed(all.filter((one) => only === null || one.state === only)),
    all,
    run.isUnderWay,
    only,
  );
  const first = useFirstOf(listed);
  return (
    <ChecksFrame>
      <div className="h-full overflow-y-auto">
        <div className="mx-auto max-w-6xl px-6 py-8">
          <div className="flex flex-wrap items-center gap-4">
            <h1 className="mr-auto font-serif text-3xl font-semibold">Checks</h1>
            {run.isUnderWay ? (
              <Button onClick={() => void run.cancel()}>Cancel the run</Button>
            ) : (
              <>
                {book.finished === null && (
                  <Button
                    disabled={!all.some((one) => isPage(one) && one.keptAt === null) || keeping.isUnderWay}
                    data-tip="Keep a copy of every linked page that has none, as companion files"
                    onClick={() => keeping.begin()}
                  >
                    Keep copies
                  </Button>
                )}
                <Button disabled={all.length === 0} onClick={() => void run.begin({ which: "due" })}>
                  Check overdue
                </Button>
                <Button
                  kind="main"
                  disabled={all.length === 0}
                  onClick={() => void run.begin({ which: "all" })}
                >
                  Check all
                </Button>
              </>
            )}
          </div>
          {run.problem && <Problem>{run.problem}</Problem>}
          <RunState run={run.job} last={last} />
          <KeepingState {...keeping} />
          {destinations.isPending && <Waiting what="Reading the links" />}
          <NotRead of={destinations} />
          {destinations.data && all.length === 0 && (
            <EmptyPage next="Make a link in Write" to={`/books/${book.id}/write?guide=first-link`}>
              Every web address, email address and shared file of the book is checked here: whether it still
              answers, and still says what you linked. The book has no such link yet.
            </EmptyPage>
          )}
          {all.length > 0 && (
            <>
              <StateFilter destinations={all} only={only} onChange={setOnly} />
              <div className="mt-3 border border-hairline bg-paper">
                {first.shown.map((destination) => (
                  <DestinationRow
                    key={destination.address}
                    bookId={book.id}
                    destination={destination}
                    onKeep={
                      book.finished === null && isPage(destination) && !keeping.isUnderWay
                        ? () => keeping.begin([destination.address])
                        : null
                    }
                    onCheck={
                      run.isUnderWay ? null : () => void run.begin({ addresses: [destination.address] })
                    }
                  />
                ))}
                <ShowMore of={first} />
              </div>
            </>
          )}
        </div>
      </div>
    </ChecksFrame>
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
  // Under the pointer no count changes, so that nothing moves away from it.
  const [held, setHeld] = useState<CheckedDestination[] | null>(null);
  const counted = held ?? destinations;
  const counts = linkStates.map(
    (state) => [state, counted.filter((one) => one.state === state).length] as const,
  );
  return (
    <div
      role="group"
      aria-label="Show"
      onPointerEnter={() => setHeld(destinations)}
      onPointerLeave={() => setHeld(null)}
      className="mt-6 flex flex-wrap gap-x-5 gap-y-1 text-sm tabular-nums"
    >
      <button
        type="button"
        aria-pressed={only === null}
        onClick={() => onChange(null)}
        className="py-1 underline-offset-4 aria-pressed:font-semibold aria-pressed:underline"
      >
        All {counted.length}
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

/** Whether a destination is a page that answers, so that a copy of it can be kept. */
function isPage({ kind, state }: CheckedDestination): boolean {
  return kind === "web" && (state === "sound" || state === "moved");
}

const need: LinkState[] = ["broken", "moved", "unsure", "guarded", "unchecked", "sound"];

function inOrderOfNeed(destinations: CheckedDestination[]): CheckedDestination[] {
  // A page that says something else needs a look like one that has moved.
  const rank = ({ state, change }: CheckedDestination): number => need.indexOf(change ? "moved" : state);
  return [...destinations].sort((a, b) => rank(a) - rank(b));
}
