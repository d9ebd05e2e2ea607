import type { Book } from "../../manuscript/book.ts";
import { ProofError, type ExportReading } from "../exported-link.ts";
import type { LinkProof } from "../compare.ts";
import { prove } from "../prove.ts";
import type { Damage, Mutation, Pick } from "./mutation.ts";
import { mutations } from "./mutations.ts";
import { OpenContainer } from "./opened/open-container.ts";
import { OpenPages } from "./opened/open-pages.ts";
import { OpenPdf } from "./opened/open-pdf.ts";

/** An exported file that is to be damaged. */
export interface Exported {
  book: Book;
  format: "pdf" | "epub" | "web" | "markdown" | "docx" | "odt";
  bytes: Uint8Array;
  read: (bytes: Uint8Array) => Promise<ExportReading> | ExportReading;
}

/** What came of one mutation in one format. */
export interface KillRow {
  mutation: string;
  format: Exported["format"];
  /** How often it was done; 0 where no file had anything of what it damages. */
  done: number;
  killed: number;
  /** Where it was done and not noticed: which of the files, and from which seed. */
  missed: { file: number; seed: number }[];
}

/**
 * Damages exported files in every way there is, and has each proven.
 * @param tries at how many places of each file
 * @param seed from which the places are drawn
 */
export async function killTable(files: readonly Exported[], tries: number, seed: number): Promise<KillRow[]> {
  const rows: KillRow[] = [];
  const sound = new Map(
    await Promise.all(
      files.map(async (file) => [file, told(prove(file.book, await file.read(file.bytes)))] as const),
    ),
  );
  for (const mutation of mutations) {
    for (const format of ["pdf", "epub", "web", "markdown", "docx", "odt"] as const) {
      const damage = damagers[format](mutation);
      if (!damage) continue;
      const row: KillRow = { mutation: mutation.name, format, done: 0, killed: 0, missed: [] };
      for (const file of files.filter((one) => one.format === format)) {
        for (let i = 0; i < tries; i++) {
          const damaged = damage(file.bytes, drawing(seed + i));
          if (!damaged) continue;
          row.done++;
          if (await isKilled(file, damaged, sound.get(file)!)) row.killed++;
          else row.missed.push({ file: files.indexOf(file), seed: seed + i });
        }
      }
      rows.push(row);
    }
  }
  return rows;
}

async function isKilled({ book, read }: Exported, damaged: Uint8Array, sound: string): Promise<boolean> {
  try {
    return told(prove(book, await read(damaged))) !== sound;
  } catch (error) {
    if (error instanceof ProofError) return true;
    throw error;
  }
}

/** What a proof tells that an author is shown as wrong. */
function told({ complete, rows, made, extra, faults }: LinkProof): string {
  const wrong = [...rows, ...made.rows].filter(({ verdict }) => verdict !== "intact");
  return JSON.stringify([complete, wrong.map(({ link, verdict }) => [link.id, verdict]), extra, faults]);
}

/** How a mutation damages a file of each format; null where it does nothing to such files. */
const damagers: Record<Exported["format"], (mutation: Mutation) => Damager | null> = {
  pdf: ({ pdf }) => damager((bytes) => new OpenPdf(bytes), pdf),
  epub: ({ pages, epub }) => damager((bytes) => new OpenPages(bytes), pages ?? epub),
  web: ({ pages, web }) => damager((bytes) => new OpenPages(bytes), pages ?? web),
  markdown: ({ markdown }) => damager((bytes) => new OpenContainer(bytes), markdown),
  docx: (mutation) => documentDamager(mutation, "docx"),
  odt: (mutation) => documentDamager(mutation, "odt"),
};

/** Gives the damaged bytes; null where the file has nothing of what is damaged. */
type Damager = (bytes: Uint8Array, pick: Pick) => Uint8Array | null;

function damager<File extends { bytes(): Uint8Array }>(
  open: (bytes: Uint8Array) => File,
  damage: Damage<File> | undefined,
): Damager | null {
  if (!damage) return null;
  return (bytes, pick) => {
    const file = open(bytes);
    return damage(file, pick) ? file.bytes() : null;
  };
}

/** A text document is a container itself, and with companion files one within another. */
function documentDamager(mutation: Mutation, format: "docx" | "odt"): Damager | null {
  const damage = mutation[format];
  if (!damage) return null;
  return (bytes, pick) => {
    const outer = new OpenContainer(bytes);
    const path = [...outer.files.keys()].find((one) => !one.includes("/") && one.endsWith(`.${format}`));
    if (path === undefined) return damage(outer, pick) ? outer.bytes() : null;
    const inner = new OpenContainer(outer.files.get(path)!);
    const isFile = /companion/.test(mutation.name);
    if (!damage(isFile ? outer : inner, pick)) return null;
    outer.files.set(path, inner.bytes());
    return outer.bytes();
  };
}

/** A small generator of numbers (mulberry32), so that the same seed draws the same places. */
function drawing(seed: number): Pick {
  let state = seed;
  const next = (): number => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
  return (all) => all[Math.floor(next() * all.length)];
}
