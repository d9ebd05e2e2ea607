import type { Mutation } from "./mutation.ts";
import { withAttribute } from "./opened/open-pages.ts";

/** No key reaches the link. */
export const linkWithoutKeys: Mutation = {
  name: "tabindex −1 on a link",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.relink(link, { tag: withAttribute(link.tag, "tabindex", "-1") });
    return link !== undefined;
  },
};
