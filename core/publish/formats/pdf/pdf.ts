import { asFolder } from "../../export-folder.ts";
import { chapterTitle } from "../../../manuscript/chapter.ts";
import { fontWarnings, foreseeFonts } from "../../own-fonts.ts";
import type { Format } from "../format.ts";
import { longWordsOf } from "./long-words.ts";
import { findMissingLetters } from "./missing-letters.ts";
import { pdfOptions } from "./options.ts";

const printed = { none: "", notes: " Written out in notes too.", list: " Listed at the end too." };

/** PDF: set in pages, tagged, with every place as a destination (ISO 32000, ISO 14289-1). */
export const pdf: Format<typeof pdfOptions> = {
  mediaType: "application/pdf",
  suffix: "pdf",
  doing: "Setting the pages",
  options: pdfOptions,
  hasPages: true,
  becomes: {
    web: "Links to their full addresses, each with its description for screen readers.",
    place: "Jump to the exact line.",
    area: "The box around each area is a link; frames are drawn.",
    reference: "Say their target’s words, number and page, and jump there.",
    signpost: "Jump to what they list, with its page, and back where the list has return links.",
  },
  becomesToo: (kind, { addresses }) => (kind === "web" ? printed[addresses] : ""),
  isStrict: ({ accessible }) => accessible,
  obstacles: ({ chapters }) =>
    chapters.flatMap(({ doc }, i) => {
      const chapter = chapterTitle(doc);
      return longWordsOf(doc).map(({ told, from, to }) => ({
        code: "long-word" as const,
        chapter,
        at: { chapter: i, from, to },
        message: told,
      }));
    }),
  foresees: (book, _, { shapes }) => [
    ...foreseeFonts(book, "pdf"),
    ...findMissingLetters(book, shapes).changes,
  ],
  write: (book, { accessible, addresses }, { name, setPages }) => {
    const set = setPages(book, accessible, addresses);
    return { ...asFolder(book, name, set.pdf), warnings: [...fontWarnings(book, "pdf"), ...set.warnings] };
  },
  // pdf.js is large, and most who ask about formats read no file.
  readBack: async (...given) => (await import("./read-back.ts")).readPdf(...given),
};
