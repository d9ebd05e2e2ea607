import { kindNames, type DestinationKind } from "@vennet/core/destination/kinds/kinds";
import type { Preflight } from "../api/client";
import { kinds } from "../destinations/kinds";
import { Problem } from "../parts/notice";
import { plural } from "../parts/wording";

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

/** What is known before an export: what stops it, and what becomes of every kind of link in this format. */
export function PreflightTable({ preflight }: { preflight: Preflight }) {
  const { obstacles, links } = preflight;
  return (
    <>
      {obstacles.length > 0 && (
        <Problem>
          {`Before the book can go out:\n${obstacles.map(({ message }) => `– ${message}`).join("\n")}`}
        </Problem>
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
