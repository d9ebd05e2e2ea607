import type { ManuscriptLink } from "./manuscript-links.ts";
import { firstPathOf, type FoundFile } from "./companion-path.ts";
import { comparable } from "./comparable.ts";
import { coveredShare } from "./covered.ts";
import {
  foldBlanks,
  valueOf,
  type Box,
  type ExportedLink,
  type ExportReading,
  type Fault,
  type FormatTraits,
  type Landing,
} from "./exported-link.ts";
import { pairLinks, type Found } from "./pair-links.ts";
import { showsMark, whyBeside, whyMisnamed } from "./judge-link.ts";
import { landsAt } from "./landing.ts";

export type LinkVerdict =
  | "intact"
  | "missing"
  | "other-destination"
  | "other-words"
  | "other-description"
  | "dead-end"
  /** It lands, but on another text than that of its place. */
  | "shifted"
  /** Its words are there as several links. */
  | "cut"
  /** A press does not reach it: something lies over it, it is hidden, or its area is elsewhere. */
  | "covered"
  /** Its file stays at home, as the author chose for this export. */
  | "left-out";

/** One link of the manuscript beside what was found of it in the file. */
export interface ProofRow {
  link: ManuscriptLink;
  verdict: LinkVerdict;
  /** Where it was found: page and rectangle, or file. Two entries where it breaks over two pages. */
  found: string[];
  /** What was found instead, or why it is missing; null for an intact link. */
  note: string | null;
}

/** The comparison of an exported file's links with the manuscript's. */
export interface LinkProof {
  /** True when every link is intact, those that follow by themselves too, and none is extra. */
  complete: boolean;
  /** The author's own links. */
  intact: number;
  total: number;
  /** Links that follow from the text by themselves. */
  made: { intact: number; total: number; rows: ProofRow[] };
  pages: number | null;
  rows: ProofRow[];
  /** Links in the file that the manuscript does not have. */
  extra: { text: string; destination: string; where: string }[];
  /** What else of the file does something to links: lists that lead astray, notes of other marks, scripts. */
  faults: Fault[];
  /** How many links the exporting format has by itself: its contents list, the numbers of notes at the foot of a page. */
  apparatus: number;
}

/** A proof in numbers. */
export interface ProofNumbers {
  complete: boolean;
  intact: number;
  total: number;
  extra: number;
  /** Of the links that follow from the text by themselves. */
  madeWrong: number;
  faults: number;
}

/** What a proof comes to. */
export function numbersOf({ complete, intact, total, extra, made, faults }: LinkProof): ProofNumbers {
  const madeWrong = made.total - made.intact;
  return { complete, intact, total, extra: extra.length, madeWrong, faults: faults.length };
}

/**
 * Pairs every link of the manuscript with one of the exported file, by exact destination and link text.
 * A link that the typesetter broke over two pages counts once. What cannot be paired is named: missing,
 * changed, or extra.
 */
export function compareLinks(manuscript: ManuscriptLink[], reading: ExportReading): LinkProof {
  const links = reading.links.map((link) => withFirstPath(link, reading.files));
  const { exported, matchesOf } = pairLinks(
    manuscript,
    links.filter((link) => !link.apparatus),
    reading.traits,
  );
  const over = linksOver(links);
  const lands = landsOnce(reading.traits.isPaged);
  const all = manuscript.map((link): ProofRow => {
    if (link.isLeftOut) return { link, verdict: "left-out", found: [], note: "Its file stays at home." };
    if (!link.expected) return { link, verdict: "missing", found: [], note: link.reason };
    const matches = matchesOf(link);
    const present = matches.filter((match) => match !== undefined);
    const where = present.flatMap((match) => match.where);
    if (present.length < matches.length) {
      const note = present.length === 0 ? "The file has no such link." : "The file has only a part of it.";
      return { link, verdict: "missing", found: where, note };
    }
    return { ...judge(link, present, reading, { over, lands }), found: where };
  });

  explainMissing(all, exported, reading.traits);
  const rows = all.filter(({ link }) => !link.isMade);
  const intact = rows.filter(isIntact).length;
  const total = rows.filter(({ verdict }) => verdict !== "left-out").length;
  const made = all.filter(({ link }) => link.isMade);
  const madeIntact = made.filter(isIntact).length;
  const extra = exported
    .filter((found) => !found.taken)
    .map(({ link, where }) => ({
      text: link.text,
      destination: valueOf(link.destination),
      where: where.join("; "),
    }));
  const { faults } = reading;
  return {
    complete: intact === total && madeIntact === made.length && extra.length === 0 && faults.length === 0,
    intact,
    total,
    made: { intact: madeIntact, total: made.length, rows: made },
    pages: reading.pages,
    rows,
    extra,
    faults,
    apparatus: links.filter((link) => link.apparatus).length,
  };
}

/** A link to one of several equal files leads to the first of them. */
function withFirstPath(link: ExportedLink, files: ExportReading["files"]): ExportedLink {
  const { destination } = link;
  if (destination.kind !== "file") return link;
  return { ...link, destination: { kind: "file", path: firstPathOf(destination.path, files) } };
}

function isIntact({ verdict }: ProofRow): boolean {
  return verdict === "intact";
}

// A press on the middle of a link has to reach it.
const mostCovered = 0.5;

function judge(
  link: ManuscriptLink,
  present: Found[],
  reading: ExportReading,
  { over, lands }: { over: LinksOver; lands: Lands },
): ProofRow {
  const { traits } = reading;
  const { link: found, where } = present[0]!;
  if (found.destination.kind === "place") {
    const { landing } = found.destination;
    if (landing === null) {
      const note = "The link is there, but its landing place is not.";
      return { link, verdict: "dead-end", found: where, note };
    }
    if (!lands(link.landing, found.destination)) {
      const note = `It lands on “${foldBlanks(landing).slice(0, shownLanding)}”.`;
      return { link, verdict: "shifted", found: where, note };
    }
  }
  if (
    link.mark !== null &&
    found.destination.kind === "place" &&
    !showsMark(found.destination, link.mark, traits)
  )
    return { link, verdict: "shifted", found: where, note: `It does not land on the mark ${link.mark}.` };
  const pieces = present.flatMap((one) => one.pieces);
  const covered = pieces.find((piece) => coveredShare(piece.boxes, over(piece)) > mostCovered);
  if (covered) {
    const note = `Other links lie over it on page ${covered.page}.`;
    return { link, verdict: "covered", found: where, note };
  }
  const unreachable = pieces.map((piece) => piece.unreachable).find((why) => why !== null);
  const beside = unreachable ?? whyBeside(link, pieces, reading);
  if (beside) return { link, verdict: "covered", found: where, note: beside };
  if (link.expected?.kind === "file" && link.expected.arrived !== "whole") {
    return { link, verdict: "dead-end", found: where, note: lacking[link.expected.arrived] };
  }
  const misnamed = pieces.map((piece) => whyMisnamed(link, piece, traits)).find((why) => why !== null);
  if (misnamed) return { link, verdict: "other-description", found: where, note: misnamed };
  return { link, verdict: "intact", found: where, note: null };
}

const shownLanding = 60;

/** What is said of a link that leads readers to no file, or not into it. */
const lacking: Readonly<Record<Exclude<FoundFile, "whole">, string>> = {
  missing: "The link is there, but its file is not.",
  changed: "The file that came along is another one.",
  "without-place": "The file came along, but it has no such page or place.",
};

type Lands = (expected: string | null, found: Landing) => boolean;

/** Whether words at a landing place are those that ought to stand there, judged once for all links that land on it. */
function landsOnce(inPages: boolean): Lands {
  const judged = new Map<string | null, Map<string, boolean>>();
  return (expected, found) => {
    const of = judged.get(expected) ?? new Map<string, boolean>();
    judged.set(expected, of);
    const there = [found.landing, ...(found.inColumns ?? [])].join("\f");
    const lands = of.get(there) ?? landsAt(expected, found, inPages);
    of.set(there, lands);
    return lands;
  };
}

type LinksOver = (piece: ExportedLink) => Box[];

/** The boxes of the links that lie over a link of a page: those that the page names after it. */
function linksOver(links: ExportedLink[]): LinksOver {
  const byPage = new Map<number, ExportedLink[]>();
  for (const link of links) if (link.page !== null) push(byPage, link.page, link);
  const at = new Map([...byPage.values()].flatMap((page) => page.map((link, i) => [link, i] as const)));
  return (piece) =>
    piece.page === null
      ? []
      : byPage
          .get(piece.page)!
          .slice(at.get(piece)! + 1)
          .filter((other) => valueOf(other.destination) !== valueOf(piece.destination))
          .flatMap(({ boxes }) => boxes);
}

/** Turns a missing link and an unpaired found one with the same words, or the same destination, into a change. */
function explainMissing(rows: ProofRow[], exported: Found[], traits: FormatTraits): void {
  const free = new Set(exported.filter((found) => !found.taken));
  for (const row of rows) {
    if (row.verdict !== "missing" || !row.link.expected || row.found.length > 0) continue;
    const words = comparable(row.link.text, traits);
    const cut = piecesOf(row.link, words, [...free], traits);
    if (cut) {
      for (const piece of cut) {
        free.delete(piece);
        piece.taken = true;
      }
      row.found = cut.flatMap((piece) => piece.where);
      row.verdict = "cut";
      row.note = `In the file it is ${cut.length} links: ${cut.map(({ link }) => `“${link.text}”`).join(", ")}.`;
      continue;
    }
    const sameWords = [...free].find(({ link }) => comparable(link.text, traits) === words);
    const sameDestination = [...free].find(
      ({ link }) => valueOf(link.destination) === row.link.expected!.value,
    );
    const match = sameWords ?? sameDestination;
    if (!match) continue;
    free.delete(match);
    match.taken = true;
    row.found = match.where;
    row.verdict = sameWords ? "other-destination" : "other-words";
    row.note = sameWords
      ? `In the file it leads to ${valueOf(match.link.destination)}.`
      : `In the file its words are “${match.link.text}”.`;
  }
}

/** Neighbouring links of the file to the link's destination that together have its words; null where there are none. */
function piecesOf(
  { expected }: ManuscriptLink,
  words: string,
  free: Found[],
  traits: FormatTraits,
): Found[] | null {
  const same = free.filter(({ link }) => valueOf(link.destination) === expected!.value);
  for (let first = 0; first < same.length; first++) {
    let joined = "";
    for (let last = first; last < same.length && joined.length < words.length; last++) {
      joined += comparable(same[last]!.link.text, traits).replaceAll(" ", "");
      if (last > first && joined === words.replaceAll(" ", "")) return same.slice(first, last + 1);
    }
  }
  return null;
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}
