import type { Mutation } from "./mutation.ts";

/** The link is told twice. */
export const annotationTwice: Mutation = {
  name: "an annotation listed twice",
  pdf(file, pick) {
    const link = pick(file.links());
    if (link) file.setAnnotations(link.page, [...file.annotationsOf(link.page), link.ref]);
    return link !== undefined;
  },
};
