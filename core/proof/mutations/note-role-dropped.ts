import type { Mutation } from "./mutation.ts";
import { withoutAttribute } from "./opened/open-pages.ts";

/** Reading devices do not know it for a note. */
export const noteRoleDropped: Mutation = {
  name: "a note’s mark that does not say what it is",
  pages(file, pick) {
    const mark = pick(file.links(/role="doc-noteref"/));
    if (mark) file.relink(mark, { tag: withoutAttribute(mark.tag, "role") });
    return mark !== undefined;
  },
};
