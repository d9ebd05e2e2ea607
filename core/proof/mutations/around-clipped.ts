import type { Mutation } from "./mutation.ts";

/** Nothing within is seen. */
export const aroundClipped: Mutation = {
  name: "a link clipped to nothing",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.replace(link, `<span style="position:fixed;clip-path:inset(50%)">${link.match[0]}</span>`);
    return link !== undefined;
  },
};
