import { useQuery } from "@tanstack/react-query";
import { BadgeCheck, MinusCircle, TriangleAlert } from "lucide-react";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { answerOf, api, type ExportWithProof } from "../api/client";
import { keys } from "../api/keys";
import { useBook } from "../book-page";
import { PageFrame } from "../frame/page-frame";
import { Waiting } from "../parts/notice";
import { ShowMore, shownAtFirst, useFirstOf } from "../parts/show-more";
import { plural, shownDate } from "../parts/wording";
import { useRoomFor } from "../parts/use-window";
import { formats } from "./formats/formats";
import { ProofVerdict } from "./proof-verdict";
import { NotRead } from "../parts/not-read";

type Row = ExportWithProof["rows"][number];

const verdicts: Record<Row["verdict"], string> = {
  intact: "Intact",
  missing: "Missing",
  "other-destination": "Leads elsewhere",
  "other-words": "Other words",
  "other-description": "Other description",
  "dead-end": "Leads nowhere",
  shifted: "Lands elsewhere",
  cut: "Cut in pieces",
  covered: "Out of reach",
  "left-out": "Left out",
};

/** The link proof of one exported file: every link of the manuscript beside what the file has of it. */
export function ProofPage() {
  const book = useBook();
  const { exportId } = useParams() as { exportId: string };
  const [chosen, setOnlyWrong] = useState<boolean | null>(null);
  const [looked, setLooked] = useState<string | null>(null);
  const wide = useRoomFor("head");
  const proof = useQuery({
    queryKey: keys.export(book.id, exportId),
    queryFn: () =>
      answerOf(
        api.GET("/api/books/{bookId}/exports/{exportId}", {
          params: { path: { bookId: book.id, exportId } },
        }),
      ),
  });
  // What is wrong has not to be looked for in a long table.
  const rows = proof.data?.rows ?? [];
  const onlyWrong = chosen ?? (rows.length > shownAtFirst && !rows.every(isRight));
  const Found = proof.data && formats[proof.data.format].Found;
  const isBeside = wide && proof.data !== undefined && Found !== undefined;
  // The first link that is wrong, else the first, is looked at before one is chosen.
  const wrong = rows.find((row) => !isRight(row) && row.found.length > 0);
  const first = wrong ?? rows.find(({ found }) => found.length > 0);
  const where = looked ?? first?.found[0] ?? null;
  const look = isBeside ? { where, at: setLooked } : null;
  return (
    <PageFrame book={book}>
      <div className={`grid h-full ${isBeside ? "grid-cols-[minmax(0,1fr)_27rem]" : ""}`}>
        <div className="mx-auto w-full max-w-6xl overflow-y-auto px-6 py-8">
          <Link
            to={`/books/${book.id}/export`}
            className="text-faint underline underline-offset-4 hover:text-blue"
          >
            {book.finished ? "All versions" : "All exports"}
          </Link>
          <h1 className="mt-1 font-serif text-3xl font-semibold">Link proof</h1>
          {proof.isPending && <Waiting what="Reading the proof" />}
          <NotRead of={proof} />
          {proof.data && (
            <>
              <div
                className={`mt-4 flex flex-wrap items-baseline gap-x-8 gap-y-1 border bg-paper p-5 ${proof.data.complete ? "border-hairline" : "border-2 border-red"}`}
              >
                <div className="text-lg">
                  <ProofVerdict proof={proof.data} />
                </div>
                <p className="text-sm text-faint">
                  {proof.data.fileName}, {shownDate(proof.data.createdAt)}
                  {proof.data.pages !== null && `, ${plural(proof.data.pages, "page")}`}.{" "}
                  {book.finished ? (
                    <>
                      Pages, text and all else were compared with the file that came.{" "}
                      {proof.data.apparatus > 0 &&
                        `${plural(proof.data.apparatus, "link is left as it was", "links are left as they were")}.`}
                    </>
                  ) : (
                    <>
                      What follows by itself, ways to notes and back, signposts and return links, was proven
                      too: {plural(proof.data.made, "link")}. Besides, the file has{" "}
                      {plural(proof.data.apparatus, "link")} of its own.
                    </>
                  )}
                </p>
                <span className="ml-auto flex gap-4">
                  <a
                    className="underline underline-offset-4 hover:text-blue"
                    href={`/api/books/${book.id}/exports/${exportId}/proof.csv`}
                    download
                  >
                    As CSV
                  </a>
                  <a
                    className="underline underline-offset-4 hover:text-blue"
                    href={`/api/books/${book.id}/exports/${exportId}/file`}
                    download={proof.data.fileName}
                  >
                    Download
                  </a>
                </span>
              </div>
              {proof.data.extraLinks.length > 0 && <ExtraLinks links={proof.data.extraLinks} />}
              {proof.data.faultsFound.length > 0 && <Faults faults={proof.data.faultsFound} />}
              {!proof.data.complete && (
                <label className="mt-4 flex items-center gap-2">
                  <input
                    type="checkbox"
                    className="size-4 accent-blue"
                    checked={onlyWrong}
                    onChange={(event) => setOnlyWrong(event.target.checked)}
                  />
                  Show only what is wrong
                </label>
              )}
              {proof.data.madeWrong > 0 && (
                <ProofTable
                  name="Ways to notes and places"
                  rows={proof.data.madeRows.filter((row) => !isRight(row))}
                  look={look}
                />
              )}
              <ProofTable
                key={String(onlyWrong)}
                name="Links of the manuscript"
                rows={rows.filter((row) => !onlyWrong || !isRight(row))}
                look={look}
              />
            </>
          )}
        </div>
        {isBeside && (
          <aside
            aria-label="The page of the file"
            className="min-h-0 overflow-y-auto border-l border-hairline p-4"
          >
            {where === null ? (
              <p className="text-faint">The file has none of the manuscript’s links.</p>
            ) : (
              <>
                <p className="mb-2 text-sm text-faint [overflow-wrap:anywhere]">{where}</p>
                {Found && <Found bookId={book.id} exportId={exportId} where={where} />}
              </>
            )}
          </aside>
        )}
      </div>
    </PageFrame>
  );
}

/** Which place of the file is looked at beside the table, and how to look at another. */
interface Look {
  where: string | null;
  at: (where: string) => void;
}

function ProofTable({ name, rows, look }: { name: string; rows: Row[]; look: Look | null }) {
  const first = useFirstOf(rows);
  return (
    <div
      className="mt-4 overflow-x-auto border border-hairline bg-paper"
      tabIndex={0}
      role="region"
      aria-label={name}
    >
      <table className={`w-full text-sm ${look ? "" : "min-w-[44rem]"}`}>
        <thead>
          <tr className="text-left text-faint">
            <th className="px-4 py-2 font-normal">In the file</th>
            <th className="px-4 py-2 font-normal">Link text</th>
            <th className="px-4 py-2 font-normal">Destination</th>
            <th className="px-4 py-2 font-normal">Found at</th>
          </tr>
        </thead>
        <tbody>
          {first.shown.map((row, i) => (
            <tr
              key={i}
              className={`border-t border-hairline align-top ${isRight(row) ? (look?.where && row.found.includes(look.where) ? "bg-blue-wash" : "") : "bg-red-wash"}`}
            >
              <td className="px-4 py-1.5 whitespace-nowrap">
                <Verdict row={row} />
              </td>
              <td className="max-w-[16rem] px-4 py-1.5">
                <span className="font-serif [overflow-wrap:anywhere]">{row.text}</span>
                <span className="block text-faint [overflow-wrap:anywhere]">{row.chapter}</span>
              </td>
              <td className="max-w-[24rem] px-4 py-1.5">
                <span className="font-mono text-[0.82rem] [overflow-wrap:anywhere]">
                  {row.destinationName}
                </span>
                {row.description && <span className="block text-faint">{row.description}</span>}
                {row.note && (
                  <span className={`block ${isRight(row) ? "text-faint" : "text-red"}`}>{row.note}</span>
                )}
              </td>
              <td className="px-4 py-1.5 text-faint">
                <FoundAt found={row.found} look={look} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <ShowMore of={first} />
    </div>
  );
}

function FoundAt({ found, look }: { found: string[]; look: Look | null }) {
  if (!look || found.length === 0) return found.join("; ") || "–";
  return found.map((where) => (
    <button
      key={where}
      type="button"
      aria-pressed={where === look.where}
      onClick={() => look.at(where)}
      className="block min-h-[24px] text-left underline decoration-edge underline-offset-4 [overflow-wrap:anywhere] hover:text-blue aria-pressed:font-semibold"
    >
      {where}
    </button>
  ));
}

/** Whether a link is as the author wants it in this file. */
function isRight({ verdict }: Row): boolean {
  return verdict === "intact" || verdict === "left-out";
}

function Verdict({ row }: { row: Row }) {
  const Icon =
    row.verdict === "intact" ? BadgeCheck : row.verdict === "left-out" ? MinusCircle : TriangleAlert;
  return (
    <span className={`inline-flex items-center gap-1 ${isRight(row) ? "" : "font-semibold text-red"}`}>
      <Icon aria-hidden size={15} /> {verdicts[row.verdict]}
    </span>
  );
}

/** What is no link, and still does something to links. */
function Faults({ faults }: { faults: ExportWithProof["faultsFound"] }) {
  const first = useFirstOf(faults);
  return (
    <section className="mt-4 border-2 border-red bg-paper p-5">
      <h2 className="font-semibold text-red">What else is wrong in the file</h2>
      <ul className="mt-2 text-sm [overflow-wrap:anywhere]">
        {first.shown.map(({ where, what }, i) => (
          <li key={i}>
            {where}: {what}
          </li>
        ))}
      </ul>
      <ShowMore of={first} />
    </section>
  );
}

function ExtraLinks({ links }: { links: ExportWithProof["extraLinks"] }) {
  const first = useFirstOf(links);
  return (
    <section className="mt-4 border-2 border-red bg-paper p-5">
      <h2 className="font-semibold text-red">In the file, but not in the manuscript</h2>
      <ul className="mt-2 text-sm [overflow-wrap:anywhere]">
        {first.shown.map((link, i) => (
          <li key={i}>
            “{link.text}” to <span className="font-mono">{link.destination}</span>, {link.where}
          </li>
        ))}
      </ul>
      <ShowMore of={first} />
    </section>
  );
}
