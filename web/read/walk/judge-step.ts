import { landsAt } from "@vennet/core/proof/landing";
import type { ExportWithProof } from "../../api/client";
import type { FileLink, Landed } from "./walker";

type Row = ExportWithProof["rows"][number];

/** What the manuscript intends, by where the link proof has found each link. */
export function intentionsOf(proof: Pick<ExportWithProof, "rows" | "madeRows">): Map<string, Row> {
  const intentions = new Map<string, Row>();
  for (const row of [...proof.rows, ...proof.madeRows])
    for (const where of row.found) intentions.set(where, row);
  return intentions;
}

/** What differs from the manuscript's intention; null where nothing does. */
export function differenceOf(landed: Landed, intended: Row | undefined): string | null {
  if (landed.at === "missed") return landed.what;
  if (landed.at === "nowhere") return "It leads nowhere in the file.";
  if (landed.at === "file" && !landed.isThere) return "Its file did not come along.";
  // The file's own links, such as those of its contents list, are nobody's intention.
  if (!intended) return null;
  const { leadsTo, expected, landing } = intended;
  if (landed.at !== leadsTo) return `It should lead to ${expected ?? "no place"}.`;
  if (landed.at === "address" && landed.address !== expected) return `It should lead to ${expected}.`;
  if (landed.at === "file" && landed.path !== expected) return `It should lead to ${expected}.`;
  const there = landed.at === "place" ? { ...landed, landing: landed.words } : null;
  if (there && !landsAt(landing, there, false)) return `It should land on “${landing}”.`;
  return null;
}

/** The links that the proof has found and the reader has not. */
export function unwalked(intentions: ReadonlyMap<string, Row>, links: readonly FileLink[]): Row[] {
  const has = new Set(links.map(({ where }) => where));
  return [...new Set([...intentions].filter(([where]) => !has.has(where)).map(([, row]) => row))];
}
