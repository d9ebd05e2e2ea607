import { PdfName, PdfString, type PdfValue } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";

/** A press starts a program. */
export const launchAction: Mutation = {
  name: "a program started in an address’s place",
  pdf(file, pick) {
    const link = pick(file.outward());
    if (!link) return false;
    const action = new Map<string, PdfValue>([
      ["S", new PdfName("Launch")],
      ["F", new PdfString("a.exe")],
    ]);
    file.set(link, "A", action);
    return true;
  },
};
