import type { Mutation } from "./mutation.ts";
import { withAttribute } from "./opened/open-pages.ts";

/** A script takes the press. */
export const eventAttribute: Mutation = {
  name: "an event attribute on a link",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.relink(link, { tag: withAttribute(link.tag, "onclick", "return false") });
    return link !== undefined;
  },
};
