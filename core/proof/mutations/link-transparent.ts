import type { Mutation } from "./mutation.ts";
import { withAttribute } from "./opened/open-pages.ts";

/** Nobody sees the link. */
export const linkTransparent: Mutation = {
  name: "zero opacity of a link",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.relink(link, { tag: withAttribute(link.tag, "style", "opacity:0.0") });
    return link !== undefined;
  },
};
