import { zipSync, type Zippable } from "fflate";
import type { Book } from "../manuscript/book.ts";
import { travellingFiles } from "./travelling-files.ts";

// The earliest date that a zip entry can hold; a fixed one makes the same book the same bytes.
export const entryDate = new Date(1980, 0, 1);

/**
 * A PDF or web page with the companion files beside it, as one folder in a zip; the file alone where the
 * book's links lead to none. Relative links in it lead to the files wherever the folder is unpacked.
 */
export function withCompanionFiles(book: Book, name: string, file: Uint8Array): Uint8Array {
  const travelling = travellingFiles(book);
  if (travelling.size === 0) return file;
  const folder: Zippable = { [name]: [file, { mtime: entryDate, level: 6 }] };
  for (const { id, path } of travelling.values())
    folder[path] = [bytesOf(book, id), { mtime: entryDate, level: 6 }];
  return zipSync(folder);
}

/** The bytes of a companion file that travels. */
export function bytesOf(book: Book, id: string): Uint8Array {
  const bytes = book.fileBytes.get(id);
  if (!bytes) throw new Error(`The bytes of companion file ${id} were not brought to the export.`);
  return bytes;
}
