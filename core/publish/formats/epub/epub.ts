import type { ExportWarning } from "../../export-warning.ts";
import { fontWarnings, foreseeFonts } from "../../own-fonts.ts";
import type { Format } from "../format.ts";
import { epubOptions } from "./options.ts";
import { readPageStarts } from "./page-starts.ts";
import { readEpub } from "./read-back.ts";
import { writeEpub } from "./write-epub.ts";

const noPages: ExportWarning = {
  code: "page-list",
  chapter: null,
  message:
    "No PDF has been exported yet, so the e-book tells no page numbers. Export a PDF first to have them.",
};

/** E-book: EPUB 3.3, with companion files inside. */
export const epub: Format<typeof epubOptions> = {
  mediaType: "application/epub+zip",
  suffix: "epub",
  doing: "Writing the e-book",
  options: epubOptions,
  hasPages: false,
  becomes: {
    file: "The files are inside the e-book; a device that does not open one shows a page in its place.",
    area: "Each area is a link in its exact shape, without script.",
    note: "Lead to the note and back; devices that can show it over the page.",
  },
  needsLastPages: ({ pageList }) => pageList,
  foresees: (book, { pageList }, { hasPages }) => [
    ...foreseeFonts(book, "epub"),
    ...(pageList && !hasPages ? [{ ...noPages, at: null }] : []),
  ],
  write: async (book, { fonts, pageList }, { textFonts, lastPages }) => {
    const pages =
      pageList && lastPages
        ? { starts: await readPageStarts(lastPages.bytes), source: lastPages.name }
        : null;
    const bytes = writeEpub(book, { fonts: fonts ? textFonts() : [], pages });
    return {
      bytes,
      isFolder: false,
      warnings: [...fontWarnings(book, "epub"), ...(pageList && !lastPages ? [noPages] : [])],
    };
  },
  readBack: readEpub,
};
