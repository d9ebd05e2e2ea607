import type { Mutation } from "./mutation.ts";
import { withAttribute } from "./opened/open-pages.ts";

/** A screen reader calls it something else. */
export const linkOfOtherRole: Mutation = {
  name: "a link with the role of another thing",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.relink(link, { tag: withAttribute(link.tag, "role", "presentation") });
    return link !== undefined;
  },
};
