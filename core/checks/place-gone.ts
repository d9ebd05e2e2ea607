import type { LinkRule } from "./finding.ts";

/** A link to a place that the book does not have. */
export const placeGone: LinkRule = {
  id: "place-gone",
  title: "A place in the book is gone",
  severity: "fix",
  source: "EPUB 3.3: a fragment leads to an element of the container",
  find: (links, { index }) =>
    links.flatMap(({ id, destination }) =>
      destination.kind === "place" && !index.places.has(destination.target)
        ? [{ subject: id, message: "The place in the book is gone. Choose where the link leads instead." }]
        : [],
    ),
};
