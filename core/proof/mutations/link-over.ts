import { PdfName, PdfString, type PdfValue } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";

/** A press is led elsewhere. */
export const linkOver: Mutation = {
  name: "a foreign link laid over a link",
  pdf(file, pick) {
    const link = pick(file.links());
    if (!link) return false;
    const action = new Map<string, PdfValue>([
      ["S", new PdfName("URI")],
      ["URI", new PdfString("https://elsewhere.example/")],
    ]);
    file.layOver(link, "Link", [["A", action]]);
    return true;
  },
};
