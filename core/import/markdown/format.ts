import type { ManuscriptFormat } from "../manuscript-reader.ts";

export const markdownFormat: ManuscriptFormat = {
  name: "Markdown or plain text",
  endings: [".md", ".markdown", ".txt"],
};
