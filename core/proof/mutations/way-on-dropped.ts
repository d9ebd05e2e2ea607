import type { Mutation } from "./mutation.ts";

/** On the foot of a chapter's page. */
export const wayOnDropped: Mutation = {
  name: "a way on dropped",
  web(file, pick) {
    const way = pick(file.waysOn());
    if (!way) return false;
    file.replace(way, way.inner);
    return true;
  },
};
