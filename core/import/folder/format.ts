import type { ManuscriptFormat } from "../manuscript-reader.ts";

export const folderFormat: ManuscriptFormat = {
  name: "folder of these pages, packed (ZIP)",
  endings: [".zip"],
};
