import { namesIn } from "../containers.ts";
import type { ManuscriptReader } from "../manuscript-reader.ts";
import { readDocument } from "./read-document.ts";
import { linksOfDocument } from "./second-reading.ts";

/** Text documents of WordprocessingML (ECMA-376, ISO/IEC 29500), transitional and strict. */
export const docx: ManuscriptReader = {
  accepts: ({ bytes }) => namesIn(bytes).some((name) => /^word\/document\d*\.xml$/.test(name)),
  read: ({ bytes }) => readDocument(bytes),
  linksOf: ({ bytes }) => linksOfDocument(bytes),
};
