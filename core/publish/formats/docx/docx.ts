import type { Format } from "../format.ts";
import { docxOptions } from "./options.ts";
import { readDocx } from "./read-back.ts";
import { writeDocx } from "./write-docx.ts";

/** Text document, for going on elsewhere: Office Open XML (ECMA-376). */
export const docx: Format<typeof docxOptions> = {
  mediaType: "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
  suffix: "docx",
  doing: "Writing the text document",
  options: docxOptions,
  hasPages: false,
  becomes: {
    place: "Jump to the place, which is a bookmark.",
    area: "This format has no areas: each is a link behind its picture.",
    note: "Are footnotes; the word processor makes the ways there and back.",
  },
  write: async (book, _, { name }) => ({ ...(await writeDocx(book, name)), warnings: [] }),
  readBack: readDocx,
};
