import type { Mutation } from "./mutation.ts";

/** Nothing within takes a press. */
export const aroundInert: Mutation = {
  name: "inert around a link",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.replace(link, `<span inert="inert">${link.match[0]}</span>`);
    return link !== undefined;
  },
};
