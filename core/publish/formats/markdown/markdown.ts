import type { Format } from "../format.ts";
import { markdownOptions } from "./options.ts";
import { readMarkdown } from "./read-back.ts";
import { writeMarkdown } from "./write-markdown.ts";

/** Markdown, for going on elsewhere: CommonMark with GFM's tables and footnotes. */
export const markdown: Format<typeof markdownOptions> = {
  mediaType: "text/markdown",
  suffix: "md",
  doing: "Writing the Markdown",
  options: markdownOptions,
  hasPages: false,
  keepsRelative: true,
  becomes: {
    place: "Jump to the place, which is an anchor of HTML.",
    area: "This format has no areas: each is a link behind its picture.",
    note: "Are footnotes; whoever shows the text makes the ways there and back.",
  },
  write: (book, _, { name }) => ({ ...writeMarkdown(book, name), warnings: [] }),
  readBack: readMarkdown,
};
