import type { Node } from "prosemirror-model";
import { topOfBook } from "../../manuscript/book-index.ts";
import { landingLetters, lettersOf } from "./file-links.ts";

/** The letters that stand at each landing place of a book, by the places' ids. */
export function lettersAtPlaces(chapters: readonly Node[]): ReadonlyMap<string, string> {
  let letters = "";
  const at = new Map<string, number>([[topOfBook, 0]]);
  for (const doc of chapters)
    doc.descendants((node) => {
      const id = node.attrs["id"] as unknown;
      if (typeof id === "string" && !at.has(id)) at.set(id, letters.length);
      if (node.isText) letters += lettersOf(node.text!);
    });
  return new Map([...at].map(([id, from]) => [id, letters.slice(from, from + landingLetters)]));
}
