import type { Mutation } from "./mutation.ts";
import { moveBy } from "./opened/pdf-areas.ts";

/** A press on the words reaches nothing. */
export const rectangleMoved: Mutation = {
  name: "a link’s area moved by 100 points",
  pdf(file, pick) {
    const link = pick(file.links());
    if (link) moveBy(file, link, 100);
    return link !== undefined;
  },
};
