import { kindNames, type DestinationKind } from "@vennet/core/destination/kinds/kinds";
import { Link } from "react-router";
import type { Preflight } from "../api/client";
import { kinds } from "../destinations/kinds";
import { Button } from "../parts/button";
import { plural } from "../parts/wording";

const shownAtOnce = 6;

type Planned = Preflight["links"][number];

const words: Record<Exclude<Planned["kind"], DestinationKind>, string> & Record<string, string> = {
  ...Object.fromEntries(kindNames.map((kind) => [kind, kinds[kind].word])),
  file: "Companion files",
  shared: "Shared files",
  area: "Areas of pictures",
  reference: "Cross-references",
  note: "Notes",
  signpost: "Signposts and return links",
};

/** What is known before an export: what stops it, what it changes, and what becomes of every kind of link in this format. */
export function PreflightTable({
  bookId,
  preflight,
  onMend,
}: {
  bookId: string;
  preflight: Preflight;
  onMend: (obstacle: Preflight["obstacles"][number]) => void;
}) {
  const { obstacles, changes, links } = preflight;
  return (
    <>
      {obstacles.length > 0 && (
        <Foreseen
          bookId={bookId}
          all={obstacles}
          onMend={onMend}
          name="What stops the export"
          summary={plural(obstacles.length, "thing stops the export", "things stop the export")}
        />
      )}
      {changes.length > 0 && (
        <Foreseen
          bookId={bookId}
          all={changes}
          name="What goes out changed"
          summary={plural(changes.length, "thing goes out changed", "things go out changed")}
        />
      )}
      {links.length === 0 ? (
        <p className="py-3 text-faint">The book has no links yet.</p>
      ) : (
        <table className="w-full text-sm">
          <thead className="sr-only">
            <tr>
              <th>Kind</th>
              <th>Number</th>
              <th>What becomes of them</th>
            </tr>
          </thead>
          <tbody>
            {links.map((planned) => (
              <tr key={planned.kind} className="border-t border-hairline align-top first:border-t-0">
                <th scope="row" className="py-1.5 pr-3 text-left font-normal">
                  {words[planned.kind]}
                </th>
                <td className="py-1.5 pr-4 text-right tabular-nums">{planned.count}</td>
                <td className="py-1.5">
                  {planned.becomes}
                  {planned.lost.length > 0 && <Lost links={planned.lost} />}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

/** What is told before an export, each with the place where it stands. */
function Foreseen({
  bookId,
  all,
  name,
  summary,
  onMend,
}: {
  bookId: string;
  all: Preflight["obstacles"] | Preflight["changes"];
  name: string;
  summary: string;
  onMend?: (obstacle: Preflight["obstacles"][number]) => void;
}) {
  return (
    <details className="mb-2 border-l-2 border-red pl-2" open={all.length <= shownAtOnce}>
      <summary className="text-red">{summary}</summary>
      <ul className="max-h-64 overflow-y-auto text-sm" tabIndex={0} aria-label={name}>
        {all.map((foreseen, i) => {
          const { chapter, chapterId, from, to, message } = foreseen;
          return (
            <li key={i} className="border-t border-hairline py-1 [overflow-wrap:anywhere] first:border-t-0">
              {chapterId !== null && (
                <Link to={`/books/${bookId}/write/${chapterId}?at=${from}-${to}`} className="underline">
                  {chapter || "Chapter without a title"}
                </Link>
              )}
              {chapterId !== null && ": "}
              {message}
              {onMend && "mend" in foreseen && foreseen.mend && (
                <Button kind="quiet" className="ml-1" onClick={() => onMend(foreseen)}>
                  Mend
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </details>
  );
}

function Lost({ links }: { links: Planned["lost"] }) {
  return (
    <details className="mt-1 border-l-2 border-red pl-2 text-red">
      <summary>{plural(links.length, "becomes words", "become words").replace(/^1 /, "One ")}</summary>
      <ul>
        {links.map(({ chapter, text, reason }, i) => (
          <li key={i} className="[overflow-wrap:anywhere]">
            “{text}” in {chapter}: {reason}
          </li>
        ))}
      </ul>
    </details>
  );
}
