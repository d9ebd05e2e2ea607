import type { Mutation } from "./mutation.ts";

/** No link is seen. */
export const ruleLettersOfNoSize: Mutation = {
  name: "a style rule that leaves links no size",
  pages(file) {
    file.addRules("a.web { font-size: 0px }");
    return true;
  },
};
