import type { Mutation } from "./mutation.ts";

/** No screen reader tells of it. */
export const aroundAriaHidden: Mutation = {
  name: "aria-hidden around a link",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.replace(link, `<span aria-hidden="true">${link.match[0]}</span>`);
    return link !== undefined;
  },
};
