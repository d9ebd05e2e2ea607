import { useState } from "react";
import { Link } from "react-router";
import type { BookFinding } from "../api/client";
import { Button } from "../parts/button";
import { AcceptForm } from "./accept-form";
import { PageChange } from "./page-change";

/** What can be done with a finding. */
export interface FindingActions {
  mend: (finding: BookFinding) => void;
  accept: (finding: BookFinding, reason: string) => Promise<void>;
  takeBack: (finding: BookFinding) => void;
  /** Null while a run is under way. */
  check: ((addresses: string[]) => void) | null;
  looked: (address: string) => void;
  stillRight: (address: string) => void;
}

/** One finding: the link in its sentence, what is wrong, and what can be done about it. */
export function FindingRow({
  bookId,
  finding,
  actions,
}: {
  bookId: string;
  finding: BookFinding;
  actions: FindingActions;
}) {
  const [isAsking, setAsking] = useState(false);
  const {
    chapterId,
    chapter,
    text,
    before,
    after,
    message,
    mend,
    accepted,
    severity,
    rule,
    address,
    change,
  } = finding;
  const isAsked = rule.startsWith("destination-") || rule === "page-changed";
  // What a whole host has done is put right for all its links at once, in the ledger.
  const host = isAsked && address?.startsWith("http") ? new URL(address).host : null;
  const mayHaveLooked = rule === "destination-unsure" || rule === "destination-guarded";
  const isOpen = accepted === null;
  return (
    <li
      data-finding
      tabIndex={-1}
      className="grid gap-x-6 gap-y-1 border-b border-hairline px-4 py-2 last:border-b-0 focus:bg-blue-wash md:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]"
    >
      <div className="min-w-0">
        <p className="font-serif [overflow-wrap:anywhere]">
          {before}
          {text !== null && <mark className="bg-blue-wash text-ink underline">{text || "no words"}</mark>}
          {after}
        </p>
        <p className="text-sm text-faint [overflow-wrap:anywhere]">
          {chapter ?? "The whole book"}
          {host !== null && (
            <>
              {" · "}
              <Link
                to={`/books/${bookId}/links?search=${encodeURIComponent(host)}`}
                className="underline decoration-edge underline-offset-2 hover:text-blue"
              >
                all links to {host}
              </Link>
            </>
          )}
        </p>
        {change && <PageChange change={change} />}
      </div>
      <div className="min-w-0 text-[0.93rem]">
        {isOpen ? <p>{message}</p> : <p className="text-faint">Accepted: {accepted}</p>}
        {mend && isOpen && (
          <p className="mt-0.5 font-mono text-[0.8rem] [overflow-wrap:anywhere]">
            <span className="sr-only">Mended, </span>
            <del className="text-faint">{mend.before}</del>{" "}
            {mend.after === "" ? <em>taken out</em> : <ins className="no-underline">{mend.after}</ins>}
          </p>
        )}
        <div className="mt-0.5 flex flex-wrap items-center gap-x-3">
          {mend && isOpen && (
            <Button kind="quiet" className="!px-0" data-press="mend" onClick={() => actions.mend(finding)}>
              Mend
            </Button>
          )}
          {change && isOpen && address !== null && (
            <Button
              kind="quiet"
              className="!px-0"
              data-press="still-right"
              onClick={() => actions.stillRight(address)}
            >
              Still right
            </Button>
          )}
          {mayHaveLooked && isOpen && address !== null && (
            <>
              {host !== null && (
                <a
                  href={address}
                  target="_blank"
                  rel="noreferrer"
                  className="underline decoration-edge underline-offset-4 hover:text-blue"
                >
                  Open it <span className="sr-only">in a new window</span>
                </a>
              )}
              <Button
                kind="quiet"
                className="!px-0"
                data-press="looked"
                onClick={() => actions.looked(address)}
              >
                I have looked
              </Button>
            </>
          )}
          {chapterId ? (
            <Link
              data-press="go"
              to={`/books/${bookId}/write/${chapterId}?${text !== null ? "link" : "place"}=${finding.subject}`}
              className="underline decoration-edge underline-offset-4 hover:text-blue"
            >
              Go there
            </Link>
          ) : (
            <Link
              data-press="go"
              to={`/books/${bookId}/links/looks`}
              className="underline decoration-edge underline-offset-4 hover:text-blue"
            >
              Link looks
            </Link>
          )}
          {isAsked && isOpen && address !== null && (
            <Button
              kind="quiet"
              className="!px-0"
              data-press="check"
              disabled={actions.check === null}
              onClick={() => actions.check?.([address])}
            >
              Check again
            </Button>
          )}
          {isOpen ? (
            severity !== "stop" &&
            !isAsking &&
            chapterId && (
              <Button kind="quiet" className="!px-0" data-press="accept" onClick={() => setAsking(true)}>
                Accept
              </Button>
            )
          ) : (
            <Button kind="quiet" className="!px-0" onClick={() => actions.takeBack(finding)}>
              Withdraw
            </Button>
          )}
        </div>
        {isAsking && isOpen && (
          <AcceptForm
            onAccept={(reason) => void actions.accept(finding, reason).then(() => setAsking(false))}
            onLeave={() => setAsking(false)}
          />
        )}
      </div>
    </li>
  );
}
