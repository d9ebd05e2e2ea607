import type { BookRule } from "./finding.ts";

/** A link to a place that the book does not have. */
export const placeGone: BookRule = {
  id: "place-gone",
  title: "A place in the book is gone",
  severity: "fix",
  source: "EPUB 3.3: a fragment leads to an element of the container",
  findInBook: ({ destination }, { index }) =>
    destination.kind === "place" && !index.places.has(destination.target)
      ? "The place in the book is gone. Choose where the link leads instead."
      : null,
};
