import type { Mutation } from "./mutation.ts";
import { withAttribute } from "./opened/open-pages.ts";

/** The link is not seen, and takes no press. */
export const linkInvisible: Mutation = {
  name: "visibility: hidden on a link",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.relink(link, { tag: withAttribute(link.tag, "style", "visibility:hidden") });
    return link !== undefined;
  },
};
