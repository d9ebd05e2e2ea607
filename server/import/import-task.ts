import { groupArrival, groupTold } from "@vennet/core/import/arrival/group-arrival";
import type { ArrivalProof } from "@vennet/core/import/arrival/arrival-proof";
import { fileNameOf } from "@vennet/core/import/file-name";
import { importManuscript, type ImportedManuscript } from "@vennet/core/import/import-manuscript";
import type { BroughtFile } from "@vennet/core/import/manuscript-reader";
import { readChapter, writeChapter } from "@vennet/core/manuscript/chapter";
import { linkUses } from "@vennet/core/manuscript/links";
import { stringify } from "csv-stringify/sync";
import { deriveChapter, type DerivedChapter } from "../chapters/derived-chapter.ts";

/** A file that was sent beside a manuscript. */
export interface FileBeside {
  id: string;
  name: string;
  /** Of a picture, its size in pixels; null for any other file. */
  size: { width: number; height: number } | null;
  /** The id that links to it get: a picture that is linked to as well is kept twice. */
  companionId: string;
}

/** A manuscript as it is kept. */
export interface ArrivedManuscript extends Omit<ImportedManuscript, "chapters" | "arrival" | "leftOut"> {
  chapters: DerivedChapter[];
  links: number;
  counts: ArrivalProof["counts"] | null;
  /** What the author sees of the arrival proof, as JSON. */
  grouped: string;
  csv: string;
}

/** How many things of one sort are shown; the table has all. */
const shownOfSort = 100;

/** Reads a manuscript file into chapters, with what is to be kept of each, and compares the file with them. */
export async function run({
  file,
  fallbackTitle,
  baseAddress,
  beside,
}: {
  file: BroughtFile;
  fallbackTitle: string;
  baseAddress: string | null;
  beside: FileBeside[];
}): Promise<ArrivedManuscript> {
  const pictures = new Map(beside.flatMap((one) => (one.size ? [[one.name, one] as const] : [])));
  const { chapters, arrival, leftOut, ...imported } = await importManuscript(file, {
    fallbackTitle,
    baseAddress,
    pictureFor: (source) => pictures.get(fileNameOf(source))?.id ?? null,
    pictureSize: (source) => pictures.get(fileNameOf(source))?.size ?? null,
    beside: beside.map(({ companionId, name }) => ({ id: companionId, name })),
  });
  const derived = chapters.map((doc) => deriveChapter(readChapter(writeChapter(doc))));
  return {
    ...imported,
    chapters: derived,
    links: chapters.reduce((sum, doc) => sum + linkUses(doc).length, 0),
    counts: arrival?.counts ?? null,
    grouped: JSON.stringify(
      arrival
        ? groupArrival(arrival, shownOfSort)
        : { counts: null, groups: [], told: groupTold(leftOut, shownOfSort) },
    ),
    csv: csvOf(arrival?.links ?? [], arrival?.told ?? leftOut),
  };
}

/** Every link of the file with what became of it, and all else that could not be taken over. */
function csvOf(links: ArrivalProof["links"], told: ImportedManuscript["leftOut"]): string {
  const rows = [
    ...links.map(({ verdict, sort, words, href, where, reason }) => ({
      what: "link",
      words,
      destination: href,
      place: where ?? "",
      verdict,
      sort,
      reason,
    })),
    ...told.map(({ where, sort, what, why }) => ({
      what,
      words: "",
      destination: "",
      place: where ?? "",
      verdict: "",
      sort,
      reason: why,
    })),
  ];
  return stringify(rows, { header: true, bom: true, escape_formulas: true });
}
