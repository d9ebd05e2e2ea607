import type { ManuscriptFormat } from "../manuscript-reader.ts";

export const folderFormat: ManuscriptFormat = {
  name: "packed folder of pages (ZIP)",
  endings: [".zip"],
};
