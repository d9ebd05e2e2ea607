import type { DestinationNames } from "../destination/kinds/kind.ts";
import type { LinkProof } from "../proof/compare.ts";
import type { LinkedPart } from "../publication/linked-part.ts";
import type { EpubPage } from "./epub/epub-page.ts";
import { proveSavedEpub } from "./epub/prove-saved.ts";
import { readFinishedEpub } from "./epub/read-finished.ts";
import { saveFinishedEpub } from "./epub/save-finished.ts";
import { FinishedError } from "./errors.ts";
import type { FinishedFacts } from "./facts.ts";
import type { FinishedFormat } from "./finished-format.ts";
import { readFinishedPart } from "./parts.ts";
import type { PdfPage } from "./pdf/pdf-page.ts";
import { proveSaved } from "./pdf/prove-saved.ts";
import { readFinishedPdf } from "./pdf/read-finished.ts";
import { saveFinishedPdf } from "./pdf/save-finished.ts";
import type { SavedFile } from "./saved-file.ts";
import type { TellPage } from "./tell-page.ts";

/** What is done to files of a format; `Page` is what is kept of a part. */
interface WorkOnFile<Page> {
  read: (
    bytes: Uint8Array,
    tell: TellPage,
    password: string,
  ) => Promise<{ facts: FinishedFacts; pages: unknown[] }>;
  save: (
    bytes: Uint8Array,
    pages: readonly Page[],
    names: DestinationNames,
    password: string,
  ) => Promise<SavedFile>;
  prove: (
    came: Uint8Array,
    saved: Uint8Array,
    pages: readonly Page[],
    names: DestinationNames,
    tell: TellPage,
    password: string,
  ) => Promise<LinkProof>;
}

const pdf: WorkOnFile<PdfPage> = { read: readFinishedPdf, save: saveFinishedPdf, prove: proveSaved };
const epub: WorkOnFile<EpubPage> = {
  read: (bytes, tell) => Promise.resolve(readFinishedEpub(bytes, tell)),
  save: (bytes, pages) => Promise.resolve(saveFinishedEpub(bytes, pages)),
  prove: (came, saved, pages, names, tell) =>
    Promise.resolve(proveSavedEpub(came, saved, pages, names, tell)),
};
const formats: Readonly<Record<FinishedFormat, WorkOnFile<never>>> = { pdf, epub };

/**
 * Reads a file: what is known of it, and its parts with their links.
 * @param password with which a PDF opens; empty where it needs none
 * @throws FinishedError or ImportError where it cannot be read
 */
export async function readFinished(
  format: FinishedFormat,
  bytes: Uint8Array,
  tell: TellPage,
  password: string,
): Promise<{ facts: FinishedFacts; parts: LinkedPart<unknown>[] }> {
  const { facts, pages } = await formats[format].read(bytes, tell, password);
  return { facts, parts: pages.map(partOf) };
}

/**
 * Writes links as they are to be into a file, reads it back, and compares.
 * @param contents all parts, as JSON has them
 * @param tell told when comparing begins, as of no page, and how far it is
 * @throws FinishedError where that cannot be
 */
export async function saveFinished(
  format: FinishedFormat,
  bytes: Uint8Array,
  contents: readonly unknown[],
  files: DestinationNames["files"],
  tell: TellPage,
  password: string,
): Promise<SavedFile & { proof: LinkProof }> {
  const parts = contents.map(partOf);
  const places = new Map(
    parts.flatMap((part) => part.places().map(({ id, text }): [string, string] => [id, text])),
  );
  const pages = parts.map(({ content }) => content as never);
  const saved = await formats[format].save(bytes, pages, { files, places }, password);
  tell(0, pages.length);
  return {
    ...saved,
    proof: await formats[format].prove(bytes, saved.bytes, pages, { files, places }, tell, password),
  };
}

function partOf(content: unknown): LinkedPart<unknown> {
  const part = readFinishedPart(content);
  if (!part) throw new FinishedError("page", "This is no part of a finished file.");
  return part;
}
