import type { Mutation } from "./mutation.ts";
import { withAttribute } from "./opened/open-pages.ts";

/** Nobody sees the link. */
export const linkOfNoLetters: Mutation = {
  name: "a link’s letters of no size",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.relink(link, { tag: withAttribute(link.tag, "style", "font-size: 0") });
    return link !== undefined;
  },
};
