import type { Mutation } from "./mutation.ts";

/** A screen reader does not know what it belongs to. */
export const structureParentDropped: Mutation = {
  name: "a link without its way to the structure tree",
  pdf(file, pick) {
    const link = pick(file.links().filter(({ dictionary }) => dictionary.has("StructParent")));
    if (link) file.unset(link, "StructParent");
    return link !== undefined;
  },
};
