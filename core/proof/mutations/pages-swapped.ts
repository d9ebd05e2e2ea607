import type { Mutation } from "./mutation.ts";

/** The book is read in another order. */
export const pagesSwapped: Mutation = {
  name: "two pages swapped in the reading order",
  epub(file, pick) {
    const pages = file.find([file.pathOf(/package\.opf$/)!], /<itemref idref="chapter-\d+"[^>]*\/>/);
    const one = pick(pages);
    const other = pick(pages.filter(({ match }) => match[0] !== one?.match[0]));
    if (!one || !other) return false;
    file.swap(one, other, (_, from) => from.match[0]);
    return true;
  },
};
