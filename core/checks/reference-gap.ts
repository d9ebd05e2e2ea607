import { referenceWords } from "../manuscript/references.ts";
import { referenceAttrs } from "../manuscript/attributes.ts";
import type { ChapterRule } from "./finding.ts";
import { nodeAt } from "../manuscript/positions.ts";

/** A cross-reference whose target is there, but has not got what the reference says of it. */
export const referenceGap: ChapterRule = {
  id: "reference-gap",
  title: "A cross-reference has nothing to say",
  severity: "fix",
  source: "common practice: a cross-reference follows its target, and never says what is not so",
  findInChapter: (doc, links, { index, chapter }) =>
    links
      .filter(({ on }) => on === "reference")
      .flatMap(({ id, from }) => {
        const reference = referenceAttrs(nodeAt(doc, from)!);
        // That it is gone is told as of every link.
        if (!index.places.has(reference.target)) return [];
        const reasons = [true, false].flatMap((hasPages) => {
          const says = referenceWords(reference, index, { chapter, position: from }, hasPages);
          return says.kind === "gap" ? [says.reason] : [];
        });
        return reasons.length > 0
          ? [
              {
                subject: id,
                message: `${reasons[0]!} Choose another form${reasons.length === 1 ? " for where there are no pages" : ""}, or number such places in “Numbers and notes”.`,
              },
            ]
          : [];
      }),
};
