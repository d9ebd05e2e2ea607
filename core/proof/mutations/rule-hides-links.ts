import type { Mutation } from "./mutation.ts";

/** No link is shown. */
export const ruleHidesLinks: Mutation = {
  name: "a style rule that hides links",
  pages(file) {
    file.addRules("a { display: none }");
    return true;
  },
};
