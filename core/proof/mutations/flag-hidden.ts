import type { Mutation } from "./mutation.ts";

/** The link is not there for who reads. */
export const flagHidden: Mutation = {
  name: "the flag Hidden on a link",
  pdf(file, pick) {
    const link = pick(file.links());
    if (link) file.set(link, "F", 4 | 2);
    return link !== undefined;
  },
};
