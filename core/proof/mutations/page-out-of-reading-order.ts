import type { Mutation } from "./mutation.ts";

/** Who reads on does not come to it. */
export const pageOutOfReadingOrder: Mutation = {
  name: "a page taken out of the reading order",
  epub(file, pick) {
    const page = pick(file.find([file.pathOf(/package\.opf$/)!], /<itemref idref="chapter-\d+"[^>]*\/>/));
    if (page) file.replace(page, "");
    return page !== undefined;
  },
};
