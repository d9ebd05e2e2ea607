import { webWithoutScheme } from "./address-without-scheme.ts";
import type { LinkRule } from "./finding.ts";

/** A link to a file beside the manuscript, which nobody brought along. What is rather a web address has a rule of its own. */
export const fileNotBrought: LinkRule = {
  id: "file-not-brought",
  title: "A file was not brought along",
  severity: "fix",
  source: "common practice: what works on the author's disk does not work on the reader's",
  find: ({ destination }) => {
    if (destination.kind !== "file" || !("path" in destination) || webWithoutScheme(destination.path))
      return null;
    return /(^|\/)\.{0,2}$/.test(destination.path)
      ? `“${destination.path}” is a folder, which does not travel with the book. Lead to a file in it, or to its address on the web.`
      : `The file “${destination.path}” lay beside the manuscript and was not brought along. Bring it in as a companion file.`;
  },
};
