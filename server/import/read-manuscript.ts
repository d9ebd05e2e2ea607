import { groupArrival, groupTold } from "@vennet/core/import/arrival/group-arrival";
import type { ArrivalProof } from "@vennet/core/import/arrival/arrival-proof";
import { FileNames, fileNameOf } from "@vennet/core/import/file-name";
import { importManuscript, type ImportedManuscript } from "@vennet/core/import/import-manuscript";
import type { BroughtFile } from "@vennet/core/import/manuscript-reader";
import type { Conventions } from "@vennet/core/manuscript/conventions";
import { linkUses } from "@vennet/core/manuscript/links";
import { stringify } from "csv-stringify/sync";
import { drawPicture } from "../pictures/draw-picture.ts";

/** A file that was sent beside a manuscript. */
export interface FileBeside {
  id: string;
  name: string;
  /** Of a picture, its size in pixels; null for any other file. */
  size: { width: number; height: number } | null;
  /** The id that links to it get: a picture that is linked to as well is kept twice. */
  companionId: string;
  sha256: string;
}

/** A manuscript on its way to be read. */
export interface ManuscriptToRead {
  file: BroughtFile;
  fallbackTitle: string;
  baseAddress: string | null;
  /** What its book counts; null for one that is to be a book of its own. */
  conventions: Conventions | null;
  beside: FileBeside[];
  /** What became of the pictures that were to be fetched from the web, by how the manuscript names them. */
  fetched: Record<string, WebPictureHere>;
}

/** A picture of the web: the id of the file in which it is kept, or why it did not come. */
export type WebPictureHere = { file: string } | { problem: string };

/** What is kept of a manuscript that was read, apart from its chapters. */
export interface ReadArrival extends Omit<ImportedManuscript, "chapters" | "arrival" | "leftOut"> {
  links: number;
  /** What the author sees of the arrival proof, as JSON. */
  grouped: string;
  csv: string;
}

/** How many things of one sort are shown; the table has all. */
const shownOfSort = 100;

/** Reads a manuscript file, and compares it with what was made of it. */
export async function readManuscript({
  file,
  fallbackTitle,
  baseAddress,
  conventions,
  beside: all,
  fetched,
}: ManuscriptToRead): Promise<ReadArrival & Pick<ImportedManuscript, "chapters">> {
  const ofWeb = (source: string): WebPictureHere | undefined =>
    Object.hasOwn(fetched, source) ? fetched[source] : undefined;
  const fetchedIds = new Set(Object.values(fetched).map((one) => ("file" in one ? one.file : "")));
  const pictureOf = (source: string): FileBeside | undefined => {
    const one = ofWeb(source);
    if (one && "file" in one) return all.find(({ id }) => id === one.file);
    return pictures.get(pictureNames.meant(fileNameOf(source)) ?? "");
  };
  // What the web calls them is no name by which the manuscript means a file.
  const beside = all.filter(({ id }) => !fetchedIds.has(id));
  const pictures = new Map(
    // Of two of a name the first is meant.
    beside.flatMap((one) => (one.size ? [[one.name, one] as const] : [])).reverse(),
  );
  const pictureNames = new FileNames(pictures.keys());
  const { arrival, leftOut, ...imported } = await importManuscript(file, {
    fallbackTitle,
    baseAddress,
    drawn: drawPicture,
    ...(conventions ? { conventions } : {}),
    pictureFor: (source) => pictureOf(source)?.id ?? null,
    pictureSize: (source) => pictureOf(source)?.size ?? null,
    unfetched: (source) => {
      const one = ofWeb(source);
      return one && "problem" in one ? one.problem : null;
    },
    beside: beside.map(({ companionId, name }) => ({ id: companionId, name })),
  });
  return {
    ...imported,
    links: imported.chapters.reduce((sum, doc) => sum + linkUses(doc).length, 0),
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
