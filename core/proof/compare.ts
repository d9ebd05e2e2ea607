import type { ManuscriptLink } from "./manuscript-links.ts";
import { foldBlanks, type ExportedLink, type ExportFormat, type ExportReading } from "./exported-link.ts";

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
  format: ExportFormat;
  /** True when every link is intact, those that follow by themselves too, and none is extra. */
  complete: boolean;
  /** The author's own links. */
  intact: number;
  total: number;
  /** Links that follow from the text by themselves, of which only those that are wrong are listed. */
  made: { intact: number; total: number; wrong: ProofRow[] };
  pages: number | null;
  rows: ProofRow[];
  /** Links in the file that the manuscript does not have. */
  extra: { text: string; destination: string; where: string }[];
  /** How many links the exporting format has by itself: its contents list, the numbers of notes at the foot of a page. */
  apparatus: number;
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

  const all = manuscript.map((link): ProofRow => {
    if (!link.expected) return { link, verdict: "missing", found: [], note: link.reason };
    const matches = expectedKeys(link, reading.format).map((key) => byKey.get(key)?.shift());
    const present = matches.filter((match) => match !== undefined);
    for (const match of present) match.taken = true;
    const where = present.flatMap((match) => match.where);
    if (present.length < matches.length) {
      const note = present.length === 0 ? "The file has no such link." : "The file has only a part of it.";
      return { link, verdict: "missing", found: where, note };
    }
    return { ...judge(link, present[0]!, reading.format), found: where };
  });

  explainMissing(all, exported, reading.format);
  const rows = all.filter(({ link }) => !link.isMade);
  const intact = rows.filter((row) => row.verdict === "intact").length;
  const made = all.filter(({ link }) => link.isMade);
  const wrong = made.filter((row) => row.verdict !== "intact");
  const extra = exported
    .filter((found) => !found.taken)
    .map(({ link, where }) => ({ text: link.text, destination: valueOf(link), where: where.join("; ") }));
  return {
    format: reading.format,
    complete: intact === rows.length && wrong.length === 0 && extra.length === 0,
    intact,
    total: rows.length,
    made: { intact: made.length - wrong.length, total: made.length, wrong },
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
  if (found.destination.as === "file" && link.expected?.as === "file") {
    const { size } = found.destination;
    if (size !== link.expected.size) {
      return {
        link,
        verdict: "dead-end",
        found: where,
        note:
          size === null
            ? "The link is there, but its file is not."
            : "The file that came along is another one.",
      };
    }
  }
  // An area has no words in a PDF; what it is stands in its description.
  const description = link.description ?? (format === "pdf" && link.isArea ? link.text : null);
  if (description !== null && found.description !== description) {
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
    if (row.verdict !== "missing" || !row.link.expected || row.found.length > 0) continue;
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
  const wanted = new Set(manuscript.flatMap((link) => expectedKeys(link, format)));
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

/** By what each part of a link is found in the file. */
function expectedKeys(
  { expected, parts, isArea }: ManuscriptLink,
  format: ExportReading["format"],
): string[] {
  if (!expected) return [];
  const texts = isArea && format === "pdf" ? [""] : parts;
  return texts.map((text) => key(expected.as, expected.value, text, format));
}

function valueOf({ destination }: ExportedLink): string {
  if (destination.as === "file") return destination.path;
  return destination.as === "address" ? destination.address : destination.target;
}

function key(as: string, value: string, text: string, format: ExportReading["format"]): string {
  return JSON.stringify([as, value, comparable(text, format)]);
}

/**
 * The words as they are compared. E-books and web pages keep them to the letter, blanks folded. A PDF has no blanks
 * of its own, only distances, and hyphens at its line ends, so both are left out on both sides there.
 */
function comparable(text: string, format: ExportReading["format"]): string {
  const normal = text.normalize("NFC");
  return format !== "pdf"
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
