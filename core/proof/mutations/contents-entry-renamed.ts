import type { Mutation } from "./mutation.ts";

/** It says another chapter than it opens. */
export const contentsEntryRenamed: Mutation = {
  name: "an entry of the contents with other words",
  pages(file, pick) {
    const entry = pick([...file.entries("toc"), ...file.entries("nav")]);
    if (entry) file.relink(entry, { inner: `${entry.inner}, or not` });
    return entry !== undefined;
  },
};
