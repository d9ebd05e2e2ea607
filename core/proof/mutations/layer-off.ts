import { PdfName, textString, type PdfValue } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";

/** The link is not there for who reads. */
export const layerOff: Mutation = {
  name: "a link on a layer that is switched off",
  pdf(file, pick) {
    const link = pick(file.links());
    if (!link) return false;
    const layer = file.objects.add(
      new Map<string, PdfValue>([
        ["Type", new PdfName("OCG")],
        ["Name", textString("Off")],
      ]),
    );
    const { catalog } = file;
    const all = new Map<string, PdfValue>([
      ["OCGs", [layer]],
      ["D", new Map<string, PdfValue>([["OFF", [layer]]])],
    ]);
    file.set(catalog, "OCProperties", all);
    file.set(link, "OC", layer);
    return true;
  },
};
