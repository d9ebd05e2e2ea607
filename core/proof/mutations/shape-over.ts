import { textString } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";

/** What is laid over it takes the press. */
export const shapeOver: Mutation = {
  name: "a shape laid over a link",
  pdf(file, pick) {
    const link = pick(file.links());
    if (link) file.layOver(link, "Square", [["Contents", textString("x")]]);
    return link !== undefined;
  },
};
