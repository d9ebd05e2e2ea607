import type { Node } from "prosemirror-model";
import { referenceAttrs, signpostAttrs } from "../../manuscript/attributes.ts";
import type { BookIndex } from "../../manuscript/book-index.ts";
import { formWords, linkUses, type LinkUse } from "../../manuscript/links.ts";
import { referenceWords } from "../../manuscript/references.ts";
import { signpostsOf } from "../../manuscript/signposts.ts";
import { nodeAt } from "../../manuscript/positions.ts";

/** Something of a book that leads somewhere. */
export interface BookLink {
  use: Pick<LinkUse, "text" | "destination" | "description">;
  /**
   * What the book says for it: an entry of a list that follows the headings, the sign of a note, the number of a page;
   * null for words that can be compared with those of a file.
   */
  made: "signpost" | "note" | "page" | null;
}

/** All that leads somewhere in a book: its links, with what cross-references say, entries of its lists, signs of notes. */
export function linksOfBook(chapters: readonly Node[], index: BookIndex): BookLink[] {
  const leadingTo = (target: string, text: string): BookLink["use"] => ({
    text,
    destination: { kind: "place", target },
    description: null,
  });
  return chapters.flatMap((doc, at) => {
    const found = linkUses(doc).map((use): BookLink => {
      if (use.on !== "reference") return { use, made: null };
      const words = wordsOfReference(nodeAt(doc, use.from)!, use.from, index, at);
      const isPaged = use.text === formWords.page || use.text === formWords["page-and-text"];
      const { destination: to } = use;
      const isOfNote = to.kind === "place" && index.places.get(to.target)?.kind === "note";
      return { use: { ...use, text: words }, made: isPaged ? "page" : isOfNote ? "note" : null };
    });
    doc.descendants((node) => {
      if (node.type.name === "signposts")
        for (const { id, words } of signpostsOf(signpostAttrs(node), index, at))
          found.push({ use: leadingTo(id, words), made: "signpost" });
      if (node.type.name === "note_reference")
        found.push({ use: leadingTo(node.attrs["note"] as string, ""), made: "note" });
    });
    return found;
  });
}

/** What a cross-reference says where there are no pages. */
export function wordsOfReference(node: Node, position: number, index: BookIndex, chapter: number): string {
  const says = referenceWords(referenceAttrs(node), index, { chapter, position }, false);
  return says.kind === "words" ? says.words : "";
}
