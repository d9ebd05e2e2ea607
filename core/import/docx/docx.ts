import { namesIn, textIn } from "../containers.ts";
import type { ManuscriptReader } from "../manuscript-reader.ts";
import { readDocument } from "./read-document.ts";
import { linksOfDocument } from "./second-reading.ts";

/** Text documents of WordprocessingML (ECMA-376, ISO/IEC 29500), transitional and strict. */
export const docx: ManuscriptReader = {
  accepts: ({ bytes }) =>
    namesIn(bytes).some((name) => /^word\/document\d*\.xml$/.test(name)) || isTextDocument(bytes),
  read: ({ bytes }) => readDocument(bytes),
  linksOf: ({ bytes }) => linksOfDocument(bytes),
};

/** Whether a container says that it has a text document, or a template of one, under whatever name (ECMA-376-1, 11.3.10). */
function isTextDocument(bytes: Uint8Array): boolean {
  const types = textIn(bytes, "[Content_Types].xml", 1_000_000);
  return /\b(wordprocessingml|ms-word)\.(document|template)(\.macroEnabled(Template)?)?\.main\+xml/.test(
    types,
  );
}
