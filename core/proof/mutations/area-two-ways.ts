import type { Mutation } from "./mutation.ts";

/** Programs that know SVG 1.1 alone are led elsewhere than all others. */
export const areaTwoWays: Mutation = {
  name: "an area’s older address changed",
  pages(file, pick) {
    const link = pick(file.links(/xlink:href=/));
    if (link) file.relink(link, { tag: link.tag.replace(/xlink:href="/, "$&x") });
    return link !== undefined;
  },
};
