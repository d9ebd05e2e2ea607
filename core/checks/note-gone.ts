import { numberNotes } from "../manuscript/notes.ts";
import type { ChapterRule } from "./finding.ts";

/** A reference in the text whose note the chapter does not have. */
export const noteGone: ChapterRule = {
  id: "note-gone",
  title: "A note is gone",
  severity: "fix",
  source: "DPUB-ARIA 1.1, doc-noteref: a reference leads to its note",
  findInChapter: (doc) => {
    const notes = new Set(numberNotes(doc).map(({ id }) => id));
    const gone = new Set<string>();
    doc.descendants((node) => {
      const note = node.attrs["note"] as string;
      if (node.type.name === "note_reference" && !notes.has(note)) gone.add(note);
    });
    return [...gone].map((subject) => ({
      subject,
      message: "The note that is referred to here is gone. Delete the reference, or write the note anew.",
    }));
  },
};
