import { unzipSync } from "fflate";
import type { ManuscriptReader } from "../manuscript-reader.ts";
import { readDocument } from "./read-document.ts";

/** Text documents of WordprocessingML (ECMA-376, ISO/IEC 29500), transitional and strict. */
export const docx: ManuscriptReader = {
  accepts: ({ bytes }) => namesIn(bytes).some((name) => /^word\/document\d*\.xml$/.test(name)),
  read: ({ bytes }) => readDocument(bytes),
};

/** The names in a container; none where it is no such thing. */
function namesIn(bytes: Uint8Array): string[] {
  const names: string[] = [];
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) return names;
  try {
    unzipSync(bytes, {
      filter: ({ name }) => {
        names.push(name);
        return false;
      },
    });
  } catch {
    // What cannot be opened as a container is none that this reader knows.
  }
  return names;
}
