import type { Mutation } from "./mutation.ts";
import { contentsEntries } from "./opened/pdf-notes.ts";

/** A chapter is not to be found. */
export const contentsEntryDropped: Mutation = {
  name: "an entry of the contents dropped",
  pages(file, pick) {
    const entry = pick([...file.entries("toc"), ...file.entries("nav")]);
    if (entry) file.replace(entry, entry.inner);
    return entry !== undefined;
  },
  pdf(file, pick) {
    const entry = pick(contentsEntries(file));
    if (!entry) return false;
    file.setAnnotations(
      entry.page,
      file.annotationsOf(entry.page).filter(({ number }) => number !== entry.ref.number),
    );
    return true;
  },
};
