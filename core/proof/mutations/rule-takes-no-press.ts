import type { Mutation } from "./mutation.ts";

/** A press goes through every link. */
export const ruleTakesNoPress: Mutation = {
  name: "a style rule by which links take no press",
  pages(file) {
    file.addRules("@media screen { .web { pointer-events: none } }");
    return true;
  },
};
