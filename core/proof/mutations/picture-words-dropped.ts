import type { Mutation } from "./mutation.ts";

/** A screen reader says nothing of where it leads. */
export const pictureWordsDropped: Mutation = {
  name: "a linked picture without its words",
  pages(file, pick) {
    const link = pick(file.ownLinks().filter(({ inner }) => /^<img [^>]*alt="[^"]/.test(inner)));
    if (link) file.relink(link, { inner: link.inner.replace(/alt="[^"]*"/, 'alt=""') });
    return link !== undefined;
  },
};
