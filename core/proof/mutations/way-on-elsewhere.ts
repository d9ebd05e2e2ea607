import type { Mutation } from "./mutation.ts";
import { withHref } from "./opened/open-pages.ts";

/** On the foot of a chapter's page. */
export const wayOnElsewhere: Mutation = {
  name: "a way on led to another page",
  web(file, pick) {
    const way = pick(file.waysOn());
    const other = pick(file.waysOn().filter(({ href }) => href !== way?.href));
    if (!way || !other) return false;
    file.relink(way, { tag: withHref(way.tag, other.href) });
    return true;
  },
};
