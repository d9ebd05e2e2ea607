import type { Mutation } from "./mutation.ts";
import { withAttribute } from "./opened/open-pages.ts";

/** A screen reader says other words than those that are seen. */
export const nameReplaced: Mutation = {
  name: "a link named otherwise than its words say",
  pages(file, pick) {
    const link = pick(file.ownLinks().filter(({ tag }) => / class="/.test(tag)));
    if (link) file.relink(link, { tag: withAttribute(link.tag, "aria-label", "Elsewhere") });
    return link !== undefined;
  },
};
