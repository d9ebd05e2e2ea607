import type { Format } from "../format.ts";
import { odtOptions } from "./options.ts";
import { readOdt } from "./read-back.ts";
import { writeOdt } from "./write-odt.ts";

/** OpenDocument text (1.3), for going on elsewhere. */
export const odt: Format<typeof odtOptions> = {
  mediaType: "application/vnd.oasis.opendocument.text",
  suffix: "odt",
  doing: "Writing the OpenDocument text",
  options: odtOptions,
  hasPages: false,
  becomes: {
    place: "Jump to the place, which is a bookmark.",
    area: "Each is a link behind its picture.",
    note: "Are footnotes; the word processor makes the ways there and back.",
  },
  write: (book, _, { name }) => ({ ...writeOdt(book, name), warnings: [] }),
  readBack: readOdt,
};
