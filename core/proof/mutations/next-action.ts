import { PdfName, PdfString, type PdfValue } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";

/** A press does more than it says. */
export const nextAction: Mutation = {
  name: "an action after a link’s own",
  pdf(file, pick) {
    const link = pick(file.outward());
    if (!link) return false;
    const next = new Map<string, PdfValue>([
      ["S", new PdfName("URI")],
      ["URI", new PdfString("https://elsewhere.example/")],
    ]);
    file.set(link, "A", new Map(file.objects.dictionary(link.dictionary.get("A"))).set("Next", next));
    return true;
  },
};
