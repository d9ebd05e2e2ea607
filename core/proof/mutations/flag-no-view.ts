import type { Mutation } from "./mutation.ts";

/** The link is not there on a screen. */
export const flagNoView: Mutation = {
  name: "the flag NoView on a link",
  pdf(file, pick) {
    const link = pick(file.links());
    if (link) file.set(link, "F", 4 | 32);
    return link !== undefined;
  },
};
