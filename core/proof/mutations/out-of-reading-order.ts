import type { Mutation } from "./mutation.ts";

/** A screen reader says its links and words in another order. */
export const outOfReadingOrder: Mutation = {
  name: "a paragraph’s parts in another order",
  pdf(file, pick) {
    const elements = file.elements();
    const paragraph = pick(
      elements.filter(
        (element) =>
          element.role === "P" &&
          file.kids(element).length > 2 &&
          elements.some(({ parent, role }) => role === "Link" && parent?.ref.number === element.ref.number),
      ),
    );
    if (paragraph) file.set(paragraph, "K", file.kids(paragraph).toReversed());
    return paragraph !== undefined;
  },
};
