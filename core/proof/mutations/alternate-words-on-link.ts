import { textString } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";

/** A screen reader says other words than those that are seen. */
export const alternateWordsOnLink: Mutation = {
  name: "other words in a link’s place for screen readers",
  pdf(file, pick) {
    const element = pick(file.elements().filter(({ role }) => role === "Link"));
    if (element) file.set(element, "ActualText", textString("Somewhere else"));
    return element !== undefined;
  },
};
