import type { Node } from "prosemirror-model";
import type { BookIndex } from "./book-index.ts";
import { linkUses } from "./links.ts";
import type { CrossReference } from "./attributes.ts";

/** What a cross-reference says. A page's number is known only to who sets the pages. */
export type ReferenceWords =
  | { kind: "words"; words: string }
  | { kind: "page"; before: string; after: string }
  /** Its target is gone, or has not got what the reference says of it. */
  | { kind: "gap"; reason: string };

/** What stands in an exported book for a cross-reference that has nothing to say. */
export const gapSign = "[?]";

/**
 * What a cross-reference says in a book as it is now. `from` is where it stands; `hasPages` says whether
 * the book is set in pages, else the reference falls back on what its author chose.
 */
export function referenceWords(
  { target, form, fallback }: CrossReference,
  index: BookIndex,
  from: { chapter: number; position: number },
  hasPages: boolean,
): ReferenceWords {
  const place = index.places.get(target);
  if (!place) return { kind: "gap", reason: "The place that it follows is gone." };
  const isPaged = form === "page" || form === "page-and-text";
  // The title page, on which the top of the book lies, carries no number.
  const shown = isPaged && (!hasPages || place.chapter === -1) ? fallback : form;
  switch (shown) {
    case "text":
      return place.words === ""
        ? { kind: "gap", reason: "The place that it follows has no words." }
        : { kind: "words", words: place.words };
    case "number": {
      const label = index.labelOf(place);
      return label === null
        ? { kind: "gap", reason: "The place that it follows has no number in this book." }
        : { kind: "words", words: label };
    }
    case "page":
      return { kind: "page", before: `${index.words.page} `, after: "" };
    case "page-and-text":
      return { kind: "page", before: `${place.words} (${index.words.page} `, after: ")" };
    case "above-or-below": {
      const isAbove =
        place.chapter === from.chapter ? place.position < from.position : place.chapter < from.chapter;
      return { kind: "words", words: isAbove ? index.words.above : index.words.below };
    }
  }
}

const positionsIn = new WeakMap<Node, Map<string, number>>();

/** Where a cross-reference stands in its chapter's document; 0 where it is not in it. */
export function positionOfReference(doc: Node, id: string): number {
  let positions = positionsIn.get(doc);
  if (!positions) {
    positions = new Map();
    for (const use of linkUses(doc)) if (use.on === "reference") positions.set(use.id, use.from);
    positionsIn.set(doc, positions);
  }
  return positions.get(id) ?? 0;
}
