import { useState } from "react";
import { Link } from "react-router";
import type { BookFinding } from "../api/client";
import { Button } from "../parts/button";
import { AcceptForm } from "./accept-form";

/** One finding: the link in its sentence, what is wrong, and what can be done about it. */
export function FindingRow({
  bookId,
  finding,
  onMend,
  onAccept,
  onTakeBack,
}: {
  bookId: string;
  finding: BookFinding;
  onMend: () => void;
  onAccept: (reason: string) => Promise<void>;
  onTakeBack: () => void;
}) {
  const [isAsking, setAsking] = useState(false);
  const { chapterId, chapter, text, before, after, message, mend, accepted, severity, rule, address } =
    finding;
  // What a whole host has done is put right for all its links at once, in the ledger.
  const host = rule.startsWith("destination-") && address?.startsWith("http") ? new URL(address).host : null;
  return (
    <li className="grid gap-x-6 gap-y-1 border-b border-hairline px-4 py-2 last:border-b-0 md:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
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
      </div>
      <div className="min-w-0 text-[0.93rem]">
        {accepted !== null ? <p className="text-faint">Accepted: {accepted}</p> : <p>{message}</p>}
        {mend && accepted === null && (
          <p className="mt-0.5 font-mono text-[0.8rem] [overflow-wrap:anywhere]">
            <span className="sr-only">Mended, </span>
            <del className="text-faint">{mend.before}</del>{" "}
            {mend.after === "" ? <em>taken out</em> : <ins className="no-underline">{mend.after}</ins>}
          </p>
        )}
        <div className="mt-0.5 flex flex-wrap items-center gap-x-3">
          {mend && accepted === null && (
            <Button kind="quiet" className="-ml-1" onClick={onMend}>
              Mend
            </Button>
          )}
          {chapterId ? (
            <Link
              to={`/books/${bookId}/write/${chapterId}?${text !== null ? "link" : "place"}=${finding.subject}`}
              className="underline decoration-edge underline-offset-4 hover:text-blue"
            >
              Go there
            </Link>
          ) : (
            <Link
              to={`/books/${bookId}/links/looks`}
              className="underline decoration-edge underline-offset-4 hover:text-blue"
            >
              Link looks
            </Link>
          )}
          {accepted !== null ? (
            <Button kind="quiet" onClick={onTakeBack}>
              Withdraw
            </Button>
          ) : (
            severity !== "stop" &&
            !isAsking &&
            chapterId && (
              <Button kind="quiet" onClick={() => setAsking(true)}>
                Accept
              </Button>
            )
          )}
        </div>
        {isAsking && accepted === null && (
          <AcceptForm
            onAccept={(reason) => void onAccept(reason).then(() => setAsking(false))}
            onLeave={() => setAsking(false)}
          />
        )}
      </div>
    </li>
  );
}
