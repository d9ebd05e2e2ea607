import type { ManuscriptFormat } from "../manuscript-reader.ts";

export const odtFormat: ManuscriptFormat = {
  name: "OpenDocument text (ODT)",
  endings: [".odt", ".fodt"],
};
