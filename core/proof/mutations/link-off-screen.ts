import type { Mutation } from "./mutation.ts";
import { withAttribute } from "./opened/open-pages.ts";

/** Nobody sees the link. */
export const linkOffScreen: Mutation = {
  name: "a link placed off the screen",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link)
      file.relink(link, { tag: withAttribute(link.tag, "style", "position: absolute; left: -9999px") });
    return link !== undefined;
  },
};
