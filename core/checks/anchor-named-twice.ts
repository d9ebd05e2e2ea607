import type { BookIndex } from "../manuscript/book-index.ts";
import { placesOf } from "../manuscript/outline.ts";
import type { ChapterRule } from "./finding.ts";
import { foldedWords } from "./folded-words.ts";

/** Two anchors of one name, of which nobody who looks for a place can tell which is meant. */
export const anchorNamedTwice: ChapterRule = {
  id: "anchor-named-twice",
  title: "Two anchors have the same name",
  severity: "consider",
  source: "common practice: a landing place is found by its name",
  findInChapter: (doc, _links, { index, keepsAnchors = false }) => {
    if (keepsAnchors) return [];
    const named = placesOf(doc).filter(({ kind, text }) => kind === "anchor" && text.trim() !== "");
    if (named.length === 0) return [];
    const counts = namesIn(index);
    return named.flatMap(({ id, text }) => {
      const count = counts.get(foldedWords(text)) ?? 0;
      return count > 1
        ? [
            {
              subject: id,
              message: `${count === 2 ? "Another anchor is" : `${count - 1} other anchors are`} called “${text}” too. Give each a name of its own.`,
            },
          ]
        : [];
    });
  },
};

const counted = new WeakMap<BookIndex, ReadonlyMap<string, number>>();

/** How many anchors of a book have each name; counted once for all of its chapters. */
function namesIn(index: BookIndex): ReadonlyMap<string, number> {
  const known = counted.get(index);
  if (known) return known;
  const counts = new Map<string, number>();
  for (const { kind, text } of index.inOrder)
    if (kind === "anchor") counts.set(foldedWords(text), (counts.get(foldedWords(text)) ?? 0) + 1);
  counted.set(index, counts);
  return counts;
}
