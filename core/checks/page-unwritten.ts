import type { LinkRule } from "./finding.ts";

/** A link to a companion page on which nothing is written yet. */
export const pageUnwritten: LinkRule = {
  id: "page-unwritten",
  title: "A companion page is not written yet",
  severity: "fix",
  source: "common practice: a link to a document that does not exist yet is written before the book goes out",
  find: (links, { index, unwritten }) =>
    links.flatMap(({ id, destination }) => {
      const place = destination.kind === "place" ? index.places.get(destination.target) : undefined;
      return place && unwritten.has(place.id)
        ? [{ subject: id, message: `The companion page “${place.text}” has no words yet. Write it.` }]
        : [];
    }),
};
