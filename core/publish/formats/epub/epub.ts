import type { ExportWarning } from "../../export-warning.ts";
import { fontWarnings, foreseeFonts } from "../../own-fonts.ts";
import type { Format, WriteTools } from "../format.ts";
import { epubOptions } from "./options.ts";
import { readEpub } from "./read-back.ts";
import { writeEpub, type EpubExtras } from "./write-epub.ts";

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
    const pages = pageList && lastPages ? await pagesOf(lastPages) : null;
    const bytes = writeEpub(book, { fonts: fonts ? textFonts() : [], pages });
    return {
      bytes,
      isFolder: false,
      warnings: [...fontWarnings(book, "epub"), ...(pageList && !lastPages ? [noPages] : [])],
    };
  },
  readBack: readEpub,
};

/** Where the pages of a PDF begin. What reads them is large, and few e-books ask for it. */
async function pagesOf({ name, bytes }: NonNullable<WriteTools["lastPages"]>): Promise<EpubExtras["pages"]> {
  const { readPageStarts } = await import("./page-starts.ts");
  return { starts: await readPageStarts(bytes), source: name };
}
