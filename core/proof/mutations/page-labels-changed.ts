import { PdfName, type PdfValue } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";

/** The numbers that the file tells are not those on its pages. */
export const pageLabelsChanged: Mutation = {
  name: "page numbers changed",
  pdf(file) {
    const label = new Map<string, PdfValue>([
      ["S", new PdfName("D")],
      ["St", 41],
    ]);
    file.set(file.catalog, "PageLabels", new Map([["Nums", [0, label]]]));
    return true;
  },
};
