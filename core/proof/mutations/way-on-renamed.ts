import type { Mutation } from "./mutation.ts";

/** It still leads to the chapter before or after. */
export const wayOnRenamed: Mutation = {
  name: "a way on called by another title",
  web(file, pick) {
    const way = pick(file.waysOn().filter(({ href }) => /chapter-/.test(href)));
    if (!way) return false;
    file.relink(way, { inner: "Another chapter" });
    return true;
  },
};
