import type { Mutation } from "./mutation.ts";
import { withAttribute } from "./opened/open-pages.ts";

/** The link takes no press and no key. */
export const linkInert: Mutation = {
  name: "inert on a link",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.relink(link, { tag: withAttribute(link.tag, "inert", "inert") });
    return link !== undefined;
  },
};
