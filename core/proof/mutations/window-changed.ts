import type { Mutation } from "./mutation.ts";
import { withAttribute, withoutAttribute } from "./opened/open-pages.ts";

/** A window opens, or does not, against what the author chose. */
export const windowChanged: Mutation = {
  name: "a link that opens another window than it should",
  pages(file, pick) {
    const link = pick(file.ownLinks().filter(({ href }) => /^https?:/.test(href)));
    if (!link) return false;
    const opens = / target="/.test(link.tag);
    file.relink(link, {
      tag: opens ? withoutAttribute(link.tag, "target") : withAttribute(link.tag, "target", "_blank"),
    });
    return true;
  },
};
