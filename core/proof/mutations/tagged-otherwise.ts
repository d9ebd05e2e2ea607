import { PdfName } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";

/** A screen reader does not call it a link. */
export const taggedOtherwise: Mutation = {
  name: "a link tagged as another thing",
  pdf(file, pick) {
    const element = pick(file.elements().filter(({ role }) => role === "Link"));
    if (element) file.set(element, "S", new PdfName("Span"));
    return element !== undefined;
  },
};
