import type { Node } from "prosemirror-model";
import { signpostAttrs } from "../../manuscript/attributes.ts";
import { topOfBook, type BookIndex } from "../../manuscript/book-index.ts";
import { signpostsOf } from "../../manuscript/signposts.ts";
import { landingLetters, lettersOf } from "./file-links.ts";
import { wordsOfReference } from "./links-of-book.ts";

/**
 * The letters that stand at each landing place of a book, by the places' ids; of a note no more than its own.
 * @param ownTitles the ids of titles that the book's file does not have
 */
export function lettersAtPlaces(
  chapters: readonly Node[],
  index: BookIndex,
  ownTitles: ReadonlySet<string>,
): ReadonlyMap<string, string> {
  let letters = "";
  const at = new Map<string, number>([[topOfBook, 0]]);
  const read = (wanted: "text" | "notes"): void =>
    chapters.forEach((doc, chapter) =>
      doc.descendants((node, position, parent) => {
        if (parent === doc && (node.type.name === "note") !== (wanted === "notes")) return false;
        const id = node.attrs["id"] as unknown;
        if (typeof id === "string" && !at.has(id)) at.set(id, letters.length);
        if (node.type.name === "title" && ownTitles.has(id as string)) return false;
        letters += lettersOf(shownWords(node, position, index, chapter));
        return true;
      }),
    );
  read("text");
  // In files notes stand wherever they like.
  read("notes");
  const ends = new Map<string, number>();
  for (const doc of chapters)
    for (const note of doc.children) {
      const id = note.attrs["id"] as string;
      if (note.type.name === "note") ends.set(id, at.get(id)! + lettersOf(note.textContent).length);
    }
  const lettersFrom = (id: string, from: number): string =>
    letters.slice(from, Math.min(from + landingLetters, ends.get(id) ?? Infinity));
  return new Map([...at].map(([id, from]) => [id, lettersFrom(id, from)]));
}

/** The words of a node itself, or what the book shows in its place. */
function shownWords(node: Node, position: number, index: BookIndex, chapter: number): string {
  if (node.isText || node.type.name === "formula") return node.textContent;
  if (node.type.name === "cross_reference") return wordsOfReference(node, position, index, chapter);
  if (node.type.name !== "signposts") return "";
  const list = signpostAttrs(node);
  return (
    list.heading +
    signpostsOf(list, index, chapter)
      .map(({ words }) => words)
      .join("")
  );
}
