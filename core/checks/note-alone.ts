import { numberNotes } from "../manuscript/notes.ts";
import type { ChapterRule } from "./finding.ts";

/** A note to which nothing in the chapter refers, so that no reader finds the way to it. */
export const noteAlone: ChapterRule = {
  id: "note-alone",
  title: "Nothing refers to a note",
  severity: "fix",
  source: "DPUB-ARIA 1.1, doc-footnote: a note is reached by a doc-noteref",
  findInChapter: (doc) =>
    numberNotes(doc).flatMap(({ id, references }) =>
      references === 0
        ? [
            {
              subject: id,
              message: "Nothing in the text refers to this note. Put its number in, or delete it.",
            },
          ]
        : [],
    ),
};
