import { PdfName, PdfString, type PdfValue } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";

/** Pointing at it does something. */
export const furtherActions: Mutation = {
  name: "further actions on a link",
  pdf(file, pick) {
    const link = pick(file.links());
    if (!link) return false;
    const script = new Map<string, PdfValue>([
      ["S", new PdfName("JavaScript")],
      ["JS", new PdfString("app.alert(1)")],
    ]);
    file.set(link, "AA", new Map([["E", script]]));
    return true;
  },
};
