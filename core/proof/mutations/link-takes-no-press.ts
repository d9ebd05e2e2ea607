import type { Mutation } from "./mutation.ts";
import { withAttribute } from "./opened/open-pages.ts";

/** A press goes through the link. */
export const linkTakesNoPress: Mutation = {
  name: "pointer-events: none on a link",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.relink(link, { tag: withAttribute(link.tag, "style", "pointer-events : none") });
    return link !== undefined;
  },
};
