import { PdfName, PdfString, type PdfValue } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";

/** Who opens the file is led elsewhere. */
export const openingAction: Mutation = {
  name: "an action when the file is opened",
  pdf(file) {
    const action = new Map<string, PdfValue>([
      ["S", new PdfName("URI")],
      ["URI", new PdfString("https://elsewhere.example/")],
    ]);
    file.set(file.catalog, "OpenAction", action);
    return true;
  },
};
