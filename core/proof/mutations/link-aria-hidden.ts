import type { Mutation } from "./mutation.ts";
import { withAttribute } from "./opened/open-pages.ts";

/** No screen reader tells of the link. */
export const linkAriaHidden: Mutation = {
  name: "aria-hidden on a link",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.relink(link, { tag: withAttribute(link.tag, "aria-hidden", "true") });
    return link !== undefined;
  },
};
