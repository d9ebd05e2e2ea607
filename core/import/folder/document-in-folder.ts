import { unzipSync } from "fflate";
import type { ManuscriptReader } from "../manuscript-reader.ts";

/** A text document in a folder, and who reads it. */
export interface DocumentInFolder {
  path: string;
  reader: ManuscriptReader;
}

const largest = 60 * 1024 * 1024;

/**
 * The one text document of a packed folder, as exports with companion files are; null where there is none, or several.
 * @param readers those of the formats that are one file
 */
export function documentIn(
  folder: Uint8Array,
  names: readonly string[],
  readers: readonly ManuscriptReader[],
): DocumentInFolder | null {
  const likely = new Set(
    names.filter((path) => /\.\w+$/.test(path) && !/(^|\/)([.~]|__MACOSX\/)/.test(path)),
  );
  const found: DocumentInFolder[] = [];
  try {
    const files = unzipSync(folder, {
      filter: ({ name, originalSize }) => likely.has(name) && originalSize < largest,
    });
    for (const [path, bytes] of Object.entries(files)) {
      const isContainer = bytes[0] === 0x50 && bytes[1] === 0x4b;
      const reader = isContainer ? readers.find((one) => one.accepts({ name: path, bytes })) : undefined;
      if (reader) found.push({ path, reader });
    }
  } catch {
    // What cannot be opened as a container is none.
    return null;
  }
  return found.length === 1 ? found[0]! : null;
}
