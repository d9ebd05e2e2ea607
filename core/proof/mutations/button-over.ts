import { PdfName, PdfString } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";

/** What is laid over it takes the press. */
export const buttonOver: Mutation = {
  name: "a button laid over a link",
  pdf(file, pick) {
    const link = pick(file.links());
    if (link)
      file.layOver(link, "Widget", [
        ["FT", new PdfName("Btn")],
        ["T", new PdfString("b")],
      ]);
    return link !== undefined;
  },
};
