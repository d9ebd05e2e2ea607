import type { BookRule } from "./finding.ts";

/** A link of a tagged file that is not described. */
export const descriptionLacking: BookRule = {
  id: "description-lacking",
  title: "A link of a tagged file has no description",
  severity: "fix",
  source: "ISO 14289-1 7.18.5, Matterhorn Protocol 28-012 (from memory)",
  // An area's text alternative is what it is described by.
  findInBook: ({ text, description, on }, { describesAll = false }) =>
    describesAll && on !== "hotspot" && description === null && text.trim() !== ""
      ? "Programs that read aloud are not told where this link leads. Describe it."
      : null,
  mend: ({ text }) => ({ description: text }),
};
