import { PdfName } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";

/** Which of the two is followed depends on the reader's program. */
export const linkTwoWays: Mutation = {
  name: "a link with an address and a place",
  pdf(file, pick) {
    const link = pick(file.outward());
    if (link) file.set(link, "Dest", [link.page.ref, new PdfName("Fit")]);
    return link !== undefined;
  },
};
