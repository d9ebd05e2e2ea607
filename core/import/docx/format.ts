import type { ManuscriptFormat } from "../manuscript-reader.ts";

export const docxFormat: ManuscriptFormat = {
  name: "text document (DOCX)",
  endings: [".docx"],
};
