import type { Mutation } from "./mutation.ts";
import { withHref } from "./opened/open-pages.ts";

/** A page number opens another page. */
export const pageListElsewhere: Mutation = {
  name: "an entry of the page list led elsewhere",
  epub(file, pick) {
    const entries = file.entries("page-list");
    const entry = pick(entries);
    const other = pick(entries.filter(({ href }) => href !== entry?.href));
    if (!entry || !other) return false;
    file.relink(entry, { tag: withHref(entry.tag, other.href) });
    return true;
  },
};
