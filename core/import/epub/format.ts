import type { ManuscriptFormat } from "../manuscript-reader.ts";

export const epubFormat: ManuscriptFormat = {
  name: "e-book (EPUB)",
  endings: [".epub"],
};
