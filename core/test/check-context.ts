import type { Node } from "prosemirror-model";
import type { CheckContext } from "../checks/finding.ts";
import { nothingKnown } from "../checks/surroundings.ts";
import { indexOf } from "../manuscript/book.ts";
import { textWidth, defaultLayout } from "../manuscript/page-layout.ts";
import { bookWith } from "./book-of-places.ts";

/** What the rules are told of a book of these documents, of which nothing else is known. */
export function contextOf(docs: Node[], more: Partial<CheckContext> = {}): CheckContext {
  return {
    ...nothingKnown,
    files: new Map(),
    pictureSizes: new Map(),
    textWidth: textWidth(defaultLayout),
    wordsLead: new Map(),
    schemes: { http: 0, https: 0 },
    index: indexOf(bookWith(docs)),
    chapter: 0,
    unwritten: new Set(),
    language: "en",
    ledTo: new Set(),
    ...more,
  };
}
