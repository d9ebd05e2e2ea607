import { zipSync, type Zippable } from "fflate";
import type { Book } from "../manuscript/book.ts";
import { travellingFiles } from "./travelling-files.ts";

// The earliest date that a zip entry can hold; a fixed one makes the same book the same bytes.
export const entryDate = new Date(1980, 0, 1);

/**
 * An exported file with what has to lie beside it, its companion files and what else is given, as one folder in a
 * zip; the file alone where there is nothing. Relative links in it lead to the files wherever the folder is unpacked.
 */
export function asFolder(
  book: Book,
  name: string,
  file: Uint8Array,
  more: [path: string, bytes: Uint8Array][] = [],
): { bytes: Uint8Array; isFolder: boolean } {
  const travelling = [...travellingFiles(book).values()];
  const beside = [
    ...more,
    ...travelling.map(({ id, path }): [string, Uint8Array] => [path, bytesOf(book, id)]),
  ];
  if (beside.length === 0) return { bytes: file, isFolder: false };
  const folder: Zippable = {};
  for (const [path, bytes] of [[name, file], ...beside] as [string, Uint8Array][])
    folder[path] = [bytes, { mtime: entryDate, level: 6 }];
  return { bytes: zipSync(folder), isFolder: true };
}

/** The bytes of a companion file that travels. */
export function bytesOf(book: Book, id: string): Uint8Array {
  const bytes = book.fileBytes.get(id);
  if (!bytes) throw new Error(`The bytes of companion file ${id} were not brought to the export.`);
  return bytes;
}
