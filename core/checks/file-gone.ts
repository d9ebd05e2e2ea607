import type { BookRule } from "./finding.ts";

/** A link to a companion file that the book does not have any more. */
export const fileGone: BookRule = {
  id: "file-gone",
  title: "A companion file is gone",
  severity: "fix",
  source: "EPUB 3.3: every linked resource is in the container",
  findInBook: ({ destination }, { files }) =>
    destination.kind === "file" && "file" in destination && !files.has(destination.file)
      ? "The companion file is gone. Choose another file, or remove the link."
      : null,
};
