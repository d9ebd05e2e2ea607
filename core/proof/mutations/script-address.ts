import { PdfName, PdfString, type PdfValue } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";
import { withHref } from "./opened/open-pages.ts";

/** A press runs a script. */
export const scriptAddress: Mutation = {
  name: "a script in an address’s place",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.relink(link, { tag: withHref(link.tag, "javascript:void(0)") });
    return link !== undefined;
  },
  pdf(file, pick) {
    const link = pick(file.outward());
    if (!link) return false;
    const action = new Map<string, PdfValue>([
      ["S", new PdfName("JavaScript")],
      ["JS", new PdfString("app.alert(1)")],
    ]);
    file.set(link, "A", action);
    return true;
  },
};
