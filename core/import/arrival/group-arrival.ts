import type { LeftOut } from "../left-out.ts";
import type { ArrivalMend, ArrivalProof, ArrivalVerdict, ArrivedLink } from "./arrival-proof.ts";

/** Links of one sort that are not as they were. */
export interface ArrivalGroup {
  verdict: ArrivalVerdict;
  sort: string;
  mend: ArrivalMend | null;
  count: number;
  /** The first of them. */
  links: Pick<ArrivedLink, "words" | "href" | "where" | "reason">[];
}

/** Other things of one sort that could not be taken over as they were. */
export interface ToldGroup {
  sort: string;
  count: number;
  items: Pick<LeftOut, "where" | "what" | "why">[];
}

/** An arrival proof with like things together, for showing. */
export interface GroupedArrival {
  counts: ArrivalProof["counts"];
  groups: ArrivalGroup[];
  told: ToldGroup[];
}

const order: readonly ArrivalVerdict[] = ["lost", "changed", "left-out", "extra"];

/** Puts like things together. @param most how many of a sort are shown */
export function groupArrival({ counts, links, told }: ArrivalProof, most: number): GroupedArrival {
  const groups = new Map<string, ArrivalGroup>();
  for (const { verdict, sort, mend, words, href, where, reason } of links) {
    if (verdict === "intact") continue;
    const key = `${verdict} ${sort}`;
    let group = groups.get(key);
    if (!group) groups.set(key, (group = { verdict, sort, mend, count: 0, links: [] }));
    group.count += 1;
    if (group.links.length < most) group.links.push({ words, href, where, reason });
  }
  const sorted = [...groups.values()].sort((a, b) => order.indexOf(a.verdict) - order.indexOf(b.verdict));
  return { counts, groups: sorted, told: groupTold(told, most) };
}

/** Puts what could not be taken over together by its sort. */
export function groupTold(told: readonly LeftOut[], most: number): ToldGroup[] {
  const groups = new Map<string, ToldGroup>();
  for (const { where, sort, what, why } of told) {
    let group = groups.get(sort);
    if (!group) groups.set(sort, (group = { sort, count: 0, items: [] }));
    group.count += 1;
    if (group.items.length < most) group.items.push({ where, what, why });
  }
  return [...groups.values()];
}
