import type { Node } from "prosemirror-model";
import { pictureAttrs, pictureWords, referenceAttrs } from "../manuscript/attributes.ts";
import { indexOf, type Book } from "../manuscript/book.ts";
import { chapterTitle } from "../manuscript/chapter.ts";
import { numberNotes } from "../manuscript/notes.ts";
import { gapSign, referenceWords } from "../manuscript/references.ts";
import { damagedPicture } from "./damaged-picture.ts";
import type { ForeseenChange } from "./export-warning.ts";
import type { KnownBefore } from "./formats/format.ts";
import { formats, type ExportOptions } from "./formats/formats.ts";

const around = 32;

/**
 * What of a book goes out in a format otherwise than it stands in the text, in the order of the text: references and
 * notes that are gone, pictures that are not there or say nothing to those who do not see them, and what the format adds.
 */
export function foreseeChanges(book: Book, options: ExportOptions, known: KnownBefore): ForeseenChange[] {
  const format = formats[options.format];
  const index = indexOf(book);
  const isStrict = format.isStrict?.(options) ?? false;
  const inText = book.chapters.flatMap(({ doc }, chapter) => {
    const found: ForeseenChange[] = [];
    const notes = new Set(numberNotes(doc).map(({ id }) => id));
    const tell = (code: ForeseenChange["code"], message: string, from: number, node: Node): void => {
      const at = { chapter, from, to: from + node.nodeSize };
      found.push({ code, chapter: chapterTitle(doc), message, at });
    };
    doc.descendants((node, position, parent) => {
      if (node.type.name === "cross_reference") {
        const says = referenceWords(referenceAttrs(node), index, { chapter, position }, format.hasPages);
        if (says.kind === "gap")
          tell(
            "gap",
            `A cross-reference says only ${gapSign}${near(parent!)}. ${says.reason}`,
            position,
            node,
          );
      }
      if (node.type.name === "note_reference" && !notes.has(node.attrs["note"] as string))
        tell(
          "gap",
          `The mark of a note says only ${gapSign}${near(parent!)}. The note is gone.`,
          position,
          node,
        );
      if (node.type.name !== "picture") return;
      const { file, alt, decorative, source } = pictureAttrs(node);
      const name = source ? ` “${source}”` : "";
      if (file === null)
        tell(
          "picture",
          `The picture${name} is not in the book; “${pictureWords(pictureAttrs(node))}” stands in its place. Bring it in.`,
          position,
          node,
        );
      else if (known.damaged.has(file))
        tell("picture", damagedPicture(pictureAttrs(node), format.hasPages), position, node);
      else if (!isStrict && alt.trim() === "" && !decorative)
        tell(
          "picture-alternative",
          `The picture${name} has no text alternative; whoever does not see it learns nothing of it. Say what it shows, or mark it as decorative.`,
          position,
          node,
        );
    });
    return found;
  });
  return [...inText, ...(format.foresees?.(book, options, known) ?? [])];
}

/** The words around something, to know it again. */
function near(block: Node): string {
  const words = block.textBetween(0, block.content.size, " ", " ").trim();
  return words === "" ? "" : ` near “${words.slice(0, around)}${words.length > around ? "…" : ""}”`;
}
