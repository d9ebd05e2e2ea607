import { useState } from "react";
import { Link } from "react-router";
import type { CheckedDestination } from "../api/client";
import { Button } from "../parts/button";
import { StateMark, stateWord } from "../parts/state-mark";
import { plural, shownDate } from "../parts/wording";
import { DestinationHistory } from "./destination-history";
import { PageChange } from "./page-change";
import { useSaidOfDestination } from "./use-said-of-destination";

/** One destination with its state, where it is used, and on demand every question and answer. */
export function DestinationRow({
  bookId,
  destination,
  onCheck,
  onKeep,
}: {
  bookId: string;
  destination: CheckedDestination;
  /** Checks this one again; null while a run is under way. */
  onCheck: (() => void) | null;
  /** Keeps a copy of it; null where it is no page, or copies are being kept. */
  onKeep: (() => void) | null;
}) {
  const [open, setOpen] = useState(false);
  const [isPast, setPast] = useState(false);
  const { address, state, reason, uses, hops, checkedAt, since, change, lookedAt, keptCopy, keptAt } =
    destination;
  const said = useSaidOfDestination(bookId);
  const [problem, setProblem] = useState<string | null>(null);
  const say = (work: Promise<void>): void => {
    setProblem(null);
    work.catch((error: unknown) => setProblem((error as Error).message));
  };
  const mayHaveLooked = (state === "unsure" || state === "guarded") && lookedAt === null;
  return (
    <article className="grid gap-x-5 gap-y-1 border-b border-hairline px-5 py-2.5 last:border-b-0 md:grid-cols-[7.5rem_1fr_19rem]">
      <div className="text-sm md:pt-0.5">
        <StateMark state={state} />
      </div>
      <div className="min-w-0">
        <p className="font-mono text-[0.9rem] [overflow-wrap:anywhere]">{address}</p>
        <p className="text-sm">
          {reason}{" "}
          {hops.length > 0 && (
            <Button
              kind="quiet"
              className="min-h-0 text-sm"
              aria-expanded={open}
              onClick={() => setOpen(!open)}
            >
              Evidence
            </Button>
          )}
          {checkedAt && (
            <Button
              kind="quiet"
              className="min-h-0 text-sm"
              aria-expanded={isPast}
              onClick={() => setPast(!isPast)}
            >
              History
            </Button>
          )}
          {onKeep && keptAt === null && (
            <Button kind="quiet" className="min-h-0 text-sm" onClick={onKeep}>
              Keep a copy
            </Button>
          )}
          {onCheck && (
            <Button kind="quiet" className="min-h-0 text-sm" onClick={onCheck}>
              Check again
            </Button>
          )}
        </p>
        {since && state !== "sound" && (
          <p className="text-sm text-faint">
            {stateWord(state)} since {shownDate(since)}
          </p>
        )}
        {keptAt && (
          <p className="text-sm text-faint">
            <a
              href={`/api/books/${bookId}/files/${keptCopy!}`}
              className="underline decoration-edge underline-offset-2 hover:text-blue"
            >
              Kept copy
            </a>{" "}
            of {shownDate(keptAt)}
            {onKeep && (
              <Button kind="quiet" className="min-h-0 text-sm" onClick={onKeep}>
                Keep it anew
              </Button>
            )}
          </p>
        )}
        {lookedAt && <p className="text-sm text-faint">Looked at by hand {shownDate(lookedAt)}</p>}
        {mayHaveLooked && (
          <Button kind="quiet" className="-ml-1 min-h-0 text-sm" onClick={() => say(said.looked(address))}>
            I have looked, and it opens
          </Button>
        )}
        {change && (
          <>
            <p className="text-sm text-red">
              {change.what === "part"
                ? "The part that is linked says something else now."
                : "The page is no longer what was linked."}{" "}
              <Button kind="quiet" className="min-h-0 text-sm" onClick={() => say(said.stillRight(address))}>
                Still right
              </Button>
            </p>
            <PageChange change={change} />
          </>
        )}
        {problem && <p className="text-sm text-red">{problem}</p>}
        {isPast && <DestinationHistory bookId={bookId} destination={destination} />}
        {open && (
          <div className="mt-1 mb-2">
            <ol className="border-l-2 border-blue pl-3 font-mono text-[0.82rem]">
              {hops.map((hop, i) => (
                <li key={i} className="[overflow-wrap:anywhere]">
                  {hop.method} {hop.address} → <strong>{hop.status ?? hop.failure}</strong>
                  {hop.location && ` to ${hop.location}`}, {hop.ms} ms
                </li>
              ))}
            </ol>
            {checkedAt && <p className="mt-1 text-sm text-faint">Checked {shownDate(checkedAt)}</p>}
          </div>
        )}
      </div>
      <ul className="text-sm">
        {uses.slice(0, open ? undefined : 2).map((use) => (
          <li key={use.linkId} className="truncate" title={`${use.text} (${use.chapter})`}>
            <Link
              to={`/books/${bookId}/write/${use.chapterId}?link=${use.linkId}`}
              className="underline decoration-edge underline-offset-2 hover:text-blue"
            >
              {use.text || "(no words)"}
            </Link>{" "}
            <span className="text-faint">{use.chapter}</span>
          </li>
        ))}
        {!open && uses.length > 2 && (
          <li className="text-faint">and {plural(uses.length - 2, "more place")}</li>
        )}
      </ul>
    </article>
  );
}
