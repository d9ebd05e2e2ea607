import { docx } from "../docx/docx.ts";
import type { ManuscriptReader } from "../manuscript-reader.ts";
import { odt } from "../odt/odt.ts";

/** The reader for a text document in a folder, by its name. */
export function readerOfDocument(path: string): ManuscriptReader {
  return /\.odt$/i.test(path) ? odt : docx;
}
