import { PdfString, textString } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";

/** What is laid over it takes the press. */
export const textNoteOver: Mutation = {
  name: "a remark laid over a link",
  pdf(file, pick) {
    const link = pick(file.links());
    if (link)
      file.layOver(link, "FreeText", [
        ["Contents", textString("x")],
        ["DA", new PdfString("/Helv 9 Tf")],
      ]);
    return link !== undefined;
  },
};
