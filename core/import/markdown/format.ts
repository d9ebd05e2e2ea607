import type { ManuscriptFormat } from "../manuscript-reader.ts";

export const markdownFormat: ManuscriptFormat = {
  name: "Markdown (text in UTF-8)",
  endings: [".md", ".markdown", ".txt"],
};
