import type { ChapterRule } from "./finding.ts";
import { checkedPage } from "./page-of-file.ts";

/** A link of a tagged file that its structure does not have. */
export const outsideStructure: ChapterRule = {
  id: "outside-structure",
  title: "A link is outside the structure of a tagged file",
  severity: "fix",
  source: "ISO 14289-1 7.18.5, Matterhorn Protocol 28-011 (from memory)",
  findInChapter: (_doc, links, context) => {
    const outside = new Set(
      (checkedPage(context)?.links ?? []).flatMap(({ id, isInStructure }) => (isInStructure ? [] : [id])),
    );
    return links.flatMap(({ id }) =>
      outside.has(id)
        ? [
            {
              subject: id,
              message:
                "Who hears this file read aloud is not told of the link where it stands. Put it into the structure.",
            },
          ]
        : [],
    );
  },
  mend: () => ({ inStructure: true }),
};
