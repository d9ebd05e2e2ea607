import type { Mutation } from "./mutation.ts";

/** Nothing within is there for who reads. */
export const aroundNotShown: Mutation = {
  name: "display: none around a link",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.replace(link, `<span style="display:none">${link.match[0]}</span>`);
    return link !== undefined;
  },
};
