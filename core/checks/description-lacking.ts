import type { LinkRule } from "./finding.ts";

/** A link of a tagged file that is not described. */
export const descriptionLacking: LinkRule = {
  id: "description-lacking",
  title: "A link of a tagged file has no description",
  severity: "fix",
  source: "ISO 14289-1 7.18.5, Matterhorn Protocol 28-012 (from memory)",
  find: (links, { describesAll = false }) =>
    links.flatMap(({ id, text, description, on }) =>
      // An area's text alternative is what it is described by.
      describesAll && on !== "hotspot" && description === null && text.trim() !== ""
        ? [
            {
              subject: id,
              message: "Programs that read aloud are not told where this link leads. Describe it.",
            },
          ]
        : [],
    ),
  mend: ({ text }) => ({ description: text }),
};
