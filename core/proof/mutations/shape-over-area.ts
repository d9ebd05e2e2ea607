import type { Mutation } from "./mutation.ts";

/** What is laid over takes every press. */
export const shapeOverArea: Mutation = {
  name: "a shape laid over the areas of a picture",
  pages(file, pick) {
    const picture = pick(file.find(file.pages, /<\/a><\/svg>/));
    if (picture)
      file.replace(picture, '</a><rect x="0" y="0" width="9999" height="9999" fill-opacity="0"/></svg>');
    return picture !== undefined;
  },
};
