import type { ManuscriptFormat } from "../manuscript-reader.ts";

export const htmlFormat: ManuscriptFormat = {
  name: "web page (HTML)",
  endings: [".html", ".htm", ".xhtml"],
};
