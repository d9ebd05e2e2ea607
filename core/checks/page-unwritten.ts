import type { BookRule } from "./finding.ts";

/** A link to a companion page on which nothing is written yet. */
export const pageUnwritten: BookRule = {
  id: "page-unwritten",
  title: "A companion page is not written yet",
  severity: "fix",
  source: "common practice: a link to a document that does not exist yet is written before the book goes out",
  findInBook: ({ destination }, { index, unwritten }) => {
    const place = destination.kind === "place" ? index.places.get(destination.target) : undefined;
    return place && unwritten.has(place.id)
      ? `The companion page “${place.text}” has no words yet. Write it.`
      : null;
  },
};
