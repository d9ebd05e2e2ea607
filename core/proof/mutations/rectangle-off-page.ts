import type { Mutation } from "./mutation.ts";
import { moveBy } from "./opened/pdf-areas.ts";

/** Nothing on the page takes a press. */
export const rectangleOffPage: Mutation = {
  name: "a link’s area off the page",
  pdf(file, pick) {
    const link = pick(file.links());
    if (link) moveBy(file, link, 5_000);
    return link !== undefined;
  },
};
