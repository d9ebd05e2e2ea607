import { writeDestination } from "../destination/destination.ts";
import { placeIndex, type Book } from "../manuscript/book.ts";
import { chapterTitle } from "../manuscript/chapter.ts";
import { linkUses } from "../manuscript/links.ts";
import { travel } from "../publish/travel.ts";
import { foldBlanks, type ExportedLink, type ExportReading } from "./exported-link.ts";

/** A link of the manuscript, with what an export ought to make of it. */
export interface ManuscriptLink {
  id: string;
  chapter: string;
  text: string;
  destination: string;
  description: string | null;
  /** What the exported file should say: an address, or the name of a place; null where it cannot travel. */
  expected: { as: "address" | "place"; value: string } | null;
  /** Why it cannot travel, where it cannot. */
  reason: string | null;
}

export type LinkVerdict =
  "intact" | "missing" | "other-destination" | "other-words" | "other-description" | "dead-end";

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
  format: "pdf" | "epub";
  /** True when every link is intact and none is extra. */
  complete: boolean;
  intact: number;
  total: number;
  pages: number | null;
  rows: ProofRow[];
  /** Links in the file that the manuscript does not have. */
  extra: { text: string; destination: string; where: string }[];
  /** How many links the export made by itself: contents entries, note numbers and their ways back. */
  apparatus: number;
}

/** The links of a book as an export should have them, in reading order. */
export function manuscriptLinks(book: Book): ManuscriptLink[] {
  const places = placeIndex(book);
  return book.chapters.flatMap(({ doc }) =>
    linkUses(doc).map((use): ManuscriptLink => {
      const way = travel(use.destination, places);
      return {
        id: use.id,
        chapter: chapterTitle(doc),
        text: use.text,
        destination: writeDestination(use.destination),
        description: use.description,
        expected:
          way.as === "address"
            ? { as: "address", value: way.address }
            : way.as === "place"
              ? { as: "place", value: way.target }
              : null,
        reason: way.as === "words" ? way.reason : null,
      };
    }),
  );
}

/**
 * Pairs every link of the manuscript with one of the exported file, by exact destination and link text.
 * A link that the typesetter broke over two pages counts once. What cannot be paired is named: missing,
 * changed, or extra.
 */
export function compareLinks(manuscript: ManuscriptLink[], reading: ExportReading): LinkProof {
  const exported = joinBrokenLinks(
    reading.links.filter((link) => !link.apparatus),
    manuscript,
    reading.format,
  );
  const byKey = new Map<string, Found[]>();
  for (const found of exported) push(byKey, found.key, found);

  const rows = manuscript.map((link): ProofRow => {
    if (!link.expected) return { link, verdict: "missing", found: [], note: link.reason };
    const match = byKey.get(key(link.expected.as, link.expected.value, link.text, reading.format))?.shift();
    if (!match) return { link, verdict: "missing", found: [], note: "The file has no such link." };
    match.taken = true;
    return judge(link, match, reading.format);
  });

  explainMissing(rows, exported, reading.format);
  const intact = rows.filter((row) => row.verdict === "intact").length;
  const extra = exported
    .filter((found) => !found.taken)
    .map(({ link, where }) => ({ text: link.text, destination: valueOf(link), where: where.join("; ") }));
  return {
    format: reading.format,
    complete: intact === rows.length && extra.length === 0,
    intact,
    total: rows.length,
    pages: reading.pages,
    rows,
    extra,
    apparatus: reading.links.filter((link) => link.apparatus).length,
  };
}

interface Found {
  link: ExportedLink;
  key: string;
  where: string[];
  taken: boolean;
}

function judge(
  link: ManuscriptLink,
  { link: found, where }: Found,
  format: ExportReading["format"],
): ProofRow {
  if (found.destination.as === "place" && !found.destination.lands) {
    return {
      link,
      verdict: "dead-end",
      found: where,
      note: "The link is there, but its landing place is not.",
    };
  }
  // In a PDF a jump inside the book is described by the typesetter, in its own words.
  const described = link.description !== null && !(format === "pdf" && found.destination.as === "place");
  if (described && found.description !== link.description) {
    return {
      link,
      verdict: "other-description",
      found: where,
      note: `The description in the file is “${found.description ?? ""}”.`,
    };
  }
  return { link, verdict: "intact", found: where, note: null };
}

/** Turns a missing link and an unpaired found one with the same words, or the same destination, into a change. */
function explainMissing(rows: ProofRow[], exported: Found[], format: ExportReading["format"]): void {
  const free = new Set(exported.filter((found) => !found.taken));
  for (const row of rows) {
    if (row.verdict !== "missing" || !row.link.expected) continue;
    const words = comparable(row.link.text, format);
    const sameWords = [...free].find(({ link }) => comparable(link.text, format) === words);
    const sameDestination = [...free].find(({ link }) => valueOf(link) === row.link.expected!.value);
    const match = sameWords ?? sameDestination;
    if (!match) continue;
    free.delete(match);
    match.taken = true;
    row.found = match.where;
    row.verdict = sameWords ? "other-destination" : "other-words";
    row.note = sameWords
      ? `In the file it leads to ${valueOf(match.link)}.`
      : `In the file its words are “${match.link.text}”.`;
  }
}

function joinBrokenLinks(
  links: ExportedLink[],
  manuscript: ManuscriptLink[],
  format: ExportReading["format"],
): Found[] {
  const wanted = new Set(
    manuscript.flatMap(({ expected, text }) =>
      expected ? [key(expected.as, expected.value, text, format)] : [],
    ),
  );
  const found = (link: ExportedLink): Found => ({
    link,
    key: key(link.destination.as, valueOf(link), link.text, format),
    where: [link.where],
    taken: false,
  });
  const out: Found[] = [];
  const open: Found[] = [];
  for (const link of links) {
    const next = found(link);
    if (wanted.has(next.key)) {
      out.push(next);
      continue;
    }
    // Several links may wait at once: one in the text and one in a note can break over the same page.
    const start = open.findIndex(
      (candidate) =>
        candidate.link.page !== null &&
        valueOf(candidate.link) === valueOf(link) &&
        link.page !== null &&
        link.page - candidate.link.page <= 1,
    );
    if (start === -1) {
      open.push(next);
      continue;
    }
    const joined = open[start]!;
    joined.link = { ...link, text: `${joined.link.text} ${link.text}` };
    joined.key = key(link.destination.as, valueOf(link), joined.link.text, format);
    joined.where.push(link.where);
    if (wanted.has(joined.key)) out.push(...open.splice(start, 1));
  }
  return [...out, ...open];
}

function valueOf(link: ExportedLink): string {
  return link.destination.as === "address" ? link.destination.address : link.destination.target;
}

function key(as: string, value: string, text: string, format: ExportReading["format"]): string {
  return JSON.stringify([as, value, comparable(text, format)]);
}

/**
 * The words as they are compared. An e-book keeps them to the letter, blanks folded. A PDF has no blanks
 * of its own, only distances, and hyphens at its line ends, so both are left out on both sides there.
 */
function comparable(text: string, format: ExportReading["format"]): string {
  const normal = text.normalize("NFC");
  return format === "epub"
    ? foldBlanks(normal)
    : normal
        .normalize("NFKC")
        .replace(/[\s\u00ad\u200b\u2060\ufe0e\ufe0f\u200d-]+/g, "")
        .replace(/\u2010|\u2011/g, "");
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}
