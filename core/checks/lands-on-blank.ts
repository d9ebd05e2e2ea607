import type { BookRule } from "./finding.ts";

/** A link to a page of a finished file on which nothing is. */
export const landsOnBlank: BookRule = {
  id: "lands-on-blank",
  title: "A link leads to a blank page",
  severity: "fix",
  source: "common practice: a reader who follows a link finds what it promised",
  findInBook: ({ destination }, { pages, index }) => {
    const place = destination.kind === "place" ? index.places.get(destination.target) : undefined;
    if (!place || !pages?.[place.chapter]?.isBlank) return null;
    const page = index.titles.get(place.chapter);
    return `Nothing stands on ${page ? `“${page.text}”` : "the page"}, to which it leads. Lead it to the page that is meant.`;
  },
};
