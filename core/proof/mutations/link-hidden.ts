import type { Mutation } from "./mutation.ts";
import { withAttribute } from "./opened/open-pages.ts";

/** The link is not there for who reads. */
export const linkHidden: Mutation = {
  name: "the attribute hidden on a link",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.relink(link, { tag: withAttribute(link.tag, "hidden", "hidden") });
    return link !== undefined;
  },
};
