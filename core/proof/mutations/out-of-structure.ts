import type { Mutation } from "./mutation.ts";
import { isRefTo } from "./opened/pdf-notes.ts";

/** A screen reader does not come to it. */
export const outOfStructure: Mutation = {
  name: "a link taken out of the structure tree",
  pdf(file, pick) {
    const element = pick(file.elements().filter(({ role, parent }) => role === "Link" && parent));
    if (!element?.parent) return false;
    const kids = file.kids(element.parent).filter((kid) => !isRefTo(kid, element.ref));
    file.set(element.parent, "K", kids);
    return true;
  },
};
