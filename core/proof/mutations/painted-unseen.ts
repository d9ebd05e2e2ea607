import type { Mutation } from "./mutation.ts";

/** Nobody sees what the page says. */
export const paintedUnseen: Mutation = {
  name: "letters of a page moved, cut away or set in small",
  pdf(file, pick) {
    const link = pick(file.links());
    const way = pick([
      "0 0 10 10 re W n",
      "0.1 0 0 0.1 0 0 cm",
      "1 0 0 1 0 -90 cm",
      "/Unknown gs",
      "/OC /Away BDC",
    ])!;
    if (link) file.paint(link.page, way, way.endsWith("BDC") ? "EMC" : "");
    return link !== undefined;
  },
};
