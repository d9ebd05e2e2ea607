import { createHash } from "node:crypto";
import { nameDestination } from "@vennet/core/destination/destination";
import type { ImportedManuscript } from "@vennet/core/import/import-manuscript";
import type { Clash, Side } from "@vennet/core/import/new-version/merge-version";
import { takeInVersion, type VersionChange } from "@vennet/core/import/new-version/take-in-version";
import { withKnownIds } from "@vennet/core/import/new-version/with-known-ids";
import type { ChapterRole } from "@vennet/core/manuscript/chapter-role";
import { chapterTitle, readChapter, writeChapter } from "@vennet/core/manuscript/chapter";
import { linkUses } from "@vennet/core/manuscript/links";
import {
  wordDifferences,
  type LinkDifference,
  type LinkState,
  type TextPart,
} from "@vennet/core/manuscript/versions";
import type { Node } from "prosemirror-model";
import { deriveChapter, type DerivedChapter } from "../chapters/derived-chapter.ts";
import {
  readManuscript,
  type FileBeside,
  type ManuscriptToRead,
  type ReadArrival,
} from "./read-manuscript.ts";

/** What a new version of a manuscript does to a book. */
export interface TakenInVersion extends ReadArrival {
  changes: {
    at: number | null;
    behind: number;
    kind: VersionChange["kind"];
    text: DerivedChapter | null;
    /** What a new one is in its book. */
    role: ChapterRole;
  }[];
  clashes: number;
  /** What the author sees of it, as JSON of {@link ShownVersion}. */
  shown: string;
  /** The texts that the next version is compared with, as JSON. */
  documents: string;
}

/** A link that comes, goes, or becomes another. */
export interface ShownLink {
  kind: LinkDifference["kind"];
  text: string;
  before: string | null;
  after: string | null;
}

/** Two texts of one stretch, of which the author chooses. */
export interface ShownClash extends Clash {
  number: number;
  /** Both in one: what went is what is here alone. */
  parts: TextPart[];
}

/** What becomes of one chapter, as the author sees it. */
export interface ShownChapter {
  title: string;
  kind: VersionChange["kind"];
  /** Its paragraphs that are others, and how many these are. */
  paragraphs: TextPart[][];
  changedParagraphs: number;
  links: ShownLink[];
  changedLinks: number;
  clashes: ShownClash[];
}

export interface ShownVersion {
  chapters: ShownChapter[];
  same: number;
  links: Readonly<Record<LinkDifference["kind"], number>>;
  /** Whether the texts as they were brought in last are known. */
  hasBase: boolean;
}

const mostShown = 60;

/**
 * Reads a new version of a manuscript and takes it into the chapters of its book.
 * @param book the documents of the book's chapters, as JSON
 * @param base the documents as they were brought in last, as JSON; null where these are not known
 * @param files the ids of the files that the book has, by their hashes
 * @param choices which text is taken at each clash; where none is given, the one that is here
 */
export async function run({
  book,
  base,
  files,
  choices,
  ...toRead
}: ManuscriptToRead & {
  book: string[];
  base: string | null;
  files: Record<string, string>;
  choices: Side[];
}): Promise<TakenInVersion> {
  const { chapters, ...read } = await readManuscript(toRead);
  const known = knownFiles(read, toRead.beside, files);
  const arrived = chapters.map((doc) => withKnownIds(doc, known));
  const isNew = ({ id }: { id: string }): boolean => !known.has(id);
  const docs = book.map((text) => readChapter(JSON.parse(text)));
  const before = base === null ? null : (JSON.parse(base) as unknown[]).map(readChapter);
  const { changes, texts } = takeInVersion(docs, before, arrived, (clash) => choices[clash] ?? "here");
  return {
    ...read,
    pictures: read.pictures.filter(isNew),
    companions: read.companions.filter(isNew),
    changes: changes.map(({ at, from, behind, kind, doc }) => ({
      at,
      behind,
      kind,
      text: doc && deriveChapter(doc),
      role: from === null ? "chapter" : (read.roles[from] ?? "chapter"),
    })),
    clashes: changes.reduce((sum, { clashes }) => sum + clashes.length, 0),
    shown: JSON.stringify(shownVersion(changes, docs, before !== null)),
    documents: JSON.stringify(texts.map(writeChapter)),
  };
}

/** The ids that pictures and other files of the manuscript have in the book already: they are the same to the byte. */
function knownFiles(
  { pictures, companions }: Pick<ImportedManuscript, "pictures" | "companions">,
  beside: readonly FileBeside[],
  files: Readonly<Record<string, string>>,
): Map<string, string> {
  const known = new Map<string, string>();
  const learn = (id: string, sha256: string): void => {
    if (files[sha256]) known.set(id, files[sha256]);
  };
  for (const { id, bytes } of [...pictures, ...companions])
    learn(id, createHash("sha256").update(bytes).digest("hex"));
  for (const { id, companionId, sha256 } of beside) {
    learn(id, sha256);
    learn(companionId, sha256);
  }
  return known;
}

function shownVersion(
  changes: readonly VersionChange[],
  docs: readonly Node[],
  hasBase: boolean,
): ShownVersion {
  const links = { added: 0, changed: 0, removed: 0 };
  let clash = 0;
  const chapters = changes.flatMap(({ at, doc, kind, difference, clashes }): ShownChapter[] => {
    const numbered = clashes.map(({ here, elsewhere }): ShownClash => {
      const parts = wordDifferences(here, elsewhere);
      return { number: clash++, here, elsewhere, parts };
    });
    if (kind === "same" && numbered.length === 0) return [];
    const paragraphs =
      difference?.paragraphs.filter((parts) => parts.some((part) => part.kind !== "same")) ?? [];
    const differences = difference?.links ?? comingOrGoing(kind, doc ?? docs[at!]!);
    for (const one of differences) links[one.kind] += 1;
    return [
      {
        title: chapterTitle(doc ?? docs[at!]!),
        kind,
        paragraphs: paragraphs.slice(0, mostShown),
        changedParagraphs: paragraphs.length,
        links: differences.slice(0, mostShown).map(shownLink),
        changedLinks: differences.length,
        clashes: numbered,
      },
    ];
  });
  return { chapters, same: changes.filter(({ kind }) => kind === "same").length, links, hasBase };
}

/** The links of a chapter that is new, or gone with all that is in it. */
function comingOrGoing(kind: VersionChange["kind"], doc: Node): LinkDifference[] {
  if (kind !== "new" && kind !== "gone") return [];
  return linkUses(doc).map(({ id, text, destination, description }): LinkDifference => {
    const state = { id, text, destination, description };
    return kind === "new" ? { kind: "added", after: state } : { kind: "removed", before: state };
  });
}

function shownLink(difference: LinkDifference): ShownLink {
  const before = "before" in difference ? difference.before : null;
  const after = "after" in difference ? difference.after : null;
  const leads = (state: LinkState | null): string | null =>
    state === null
      ? null
      : state.destination.kind === "place"
        ? "a place in this book"
        : nameDestination(state.destination);
  return { kind: difference.kind, text: (after ?? before)!.text, before: leads(before), after: leads(after) };
}
