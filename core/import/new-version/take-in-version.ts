import type { Node } from "prosemirror-model";
import { compareVersions, type ChapterDifference } from "../../manuscript/versions.ts";
import { knownIds, pairChapters } from "./known-ids.ts";
import { mergeVersion, type Clash, type Side } from "./merge-version.ts";
import { withKnownIds } from "./with-known-ids.ts";
import { withWhatStays } from "./with-what-stays.ts";

/** What becomes of one chapter of a book when a new version of its manuscript is taken in. */
export interface VersionChange {
  /** The chapter's index in the book; null for a new one. */
  at: number | null;
  /** Its index in the new version; null for one that is not there any more. */
  from: number | null;
  /** Its new text; null for one that goes, or that stays as it is. */
  doc: Node | null;
  kind: "new" | "changed" | "same" | "gone";
  /** The index of the chapter behind which a new one comes; −1 for the first. */
  behind: number;
  difference: ChapterDifference | null;
  clashes: Clash[];
}

/**
 * Takes a new version of a manuscript into its book. Chapters and paragraphs are matched by their words, and links by
 * words and destination: what is known keeps its ids, and with them history, acceptances and looks.
 * @param book the chapters as they are
 * @param base the chapters as they were brought in last; null where nothing is known of that: then what the file does
 * not show, as lists that follow the headings, stays, and so do chapters that it does not have
 * @param arrived the chapters of the new version; files in it that the book has are called by the book's ids
 * @param choose which text is taken where both were changed, by the number of the clash in the whole book
 * @returns a change for each chapter of both, and the texts to compare the next version with
 */
export function takeInVersion(
  book: readonly Node[],
  base: readonly Node[] | null,
  arrived: readonly Node[],
  choose: (clash: number) => Side,
): { changes: VersionChange[]; texts: Node[] } {
  const known = base ?? book;
  const pairs = pairChapters(known, arrived);
  const ids = knownIds(pairs);
  const titleId = (doc: Node): string => doc.firstChild!.attrs["id"] as string;
  const places = new Map(book.map((doc, at) => [titleId(doc), at]));
  const changes: VersionChange[] = [];
  const texts: Node[] = [];
  let clashes = 0;
  let behind = -1;
  const seen = new Set<number>();
  for (const [from, doc] of arrived.entries()) {
    const renamed = withKnownIds(doc, ids);
    texts.push(renamed);
    const before = pairs.find(([, one]) => one === doc)?.[0];
    const at = before ? places.get(titleId(before)) : undefined;
    // One that was deleted here comes back as new.
    if (before === undefined || at === undefined) {
      changes.push({ at: null, from, doc: renamed, kind: "new", behind, difference: null, clashes: [] });
      continue;
    }
    behind = at;
    seen.add(at);
    const here = book[at]!;
    const elsewhere = base ? renamed : withWhatStays(renamed, here);
    const merged = mergeVersion(base ? before : here, here, elsewhere, (n) => choose(clashes + n));
    clashes += merged.clashes.length;
    const isSame = merged.doc.eq(here);
    changes.push({
      at,
      from,
      doc: isSame ? null : merged.doc,
      kind: isSame ? "same" : "changed",
      behind,
      difference: isSame ? null : compareVersions(here, merged.doc),
      clashes: merged.clashes,
    });
  }
  for (const doc of base ?? []) {
    const at = places.get(titleId(doc));
    if (at === undefined || seen.has(at)) continue;
    // What was written into it here since is not thrown away with it.
    const isUntouched = book[at]!.eq(doc);
    changes.push({
      at,
      from: null,
      doc: null,
      kind: isUntouched ? "gone" : "same",
      behind,
      difference: null,
      clashes: [],
    });
  }
  return { changes, texts };
}
