import { importManuscript, type ImportedManuscript } from "@vennet/core/import/import-manuscript";
import type { BroughtFile } from "@vennet/core/import/manuscript-reader";
import { readChapter, writeChapter } from "@vennet/core/manuscript/chapter";
import { deriveChapter, type DerivedChapter } from "../chapters/derived-chapter.ts";

/**
 * Reads a manuscript file into chapters, with what is to be kept of each.
 * @param input.pictures the ids of the pictures that were sent beside it, by their names
 */
export async function run({
  file,
  fallbackTitle,
  baseAddress,
  pictures,
}: {
  file: BroughtFile;
  fallbackTitle: string;
  baseAddress: string | null;
  pictures: Record<string, string>;
}): Promise<Omit<ImportedManuscript, "chapters"> & { chapters: DerivedChapter[] }> {
  const imported = await importManuscript(file, {
    fallbackTitle,
    baseAddress,
    pictureFor: (source) => pictures[fileName(source)] ?? null,
  });
  return {
    ...imported,
    chapters: imported.chapters.map((doc) => deriveChapter(readChapter(writeChapter(doc)))),
  };
}

function fileName(source: string): string {
  const name =
    source
      .replace(/[?#].*$/s, "")
      .split("/")
      .at(-1) ?? "";
  try {
    return decodeURIComponent(name);
  } catch {
    return name;
  }
}
