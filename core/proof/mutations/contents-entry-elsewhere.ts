import type { Mutation } from "./mutation.ts";
import { withHref } from "./opened/open-pages.ts";
import { contentsEntries } from "./opened/pdf-notes.ts";

/** It opens another chapter. */
export const contentsEntryElsewhere: Mutation = {
  name: "an entry of the contents led elsewhere",
  pages(file, pick) {
    const entries = [...file.entries("toc"), ...file.entries("nav")];
    const entry = pick(entries);
    const other = pick(entries.filter(({ href }) => href !== entry?.href));
    if (!entry || !other) return false;
    file.relink(entry, { tag: withHref(entry.tag, other.href) });
    return true;
  },
  pdf(file, pick) {
    const entries = contentsEntries(file);
    const entry = pick(entries);
    const other = pick(
      entries.filter((one) => entry && file.leadsTo(one.dictionary) !== file.leadsTo(entry.dictionary)),
    );
    if (!entry || !other) return false;
    file.set(entry, "Dest", other.dictionary.get("Dest")!);
    return true;
  },
};
