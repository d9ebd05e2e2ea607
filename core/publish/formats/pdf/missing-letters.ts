import type { Book } from "../../../manuscript/book.ts";
import { chapterTitle } from "../../../manuscript/chapter.ts";
import type { ExportWarning } from "../../export-warning.ts";

const around = 24;
const mostNamed = 20;

/** What stands in a PDF for a letter that no font has. */
export const standInLetter = "\u25a1";

/**
 * The letters of a book that no font has a shape for, each told once with the place where it stands first.
 * @param hasShape whether any of the typesetter's fonts has a shape for a code point
 */
export function findMissingLetters(
  book: Pick<Book, "title" | "author" | "chapters">,
  hasShape: (codePoint: number) => boolean,
): { letters: Set<string>; warnings: ExportWarning[] } {
  const letters = new Set<string>();
  const warnings: ExportWarning[] = [];
  const look = (text: string, chapter: string | null): void => {
    let at = 0;
    for (const letter of text) {
      const start = at;
      at += letter.length;
      if (letters.has(letter) || isShapeless(letter) || hasShape(letter.codePointAt(0)!)) continue;
      letters.add(letter);
      if (warnings.length >= mostNamed) continue;
      const place = text.slice(Math.max(0, start - around), at + around).trim();
      const code = letter.codePointAt(0)!.toString(16).toUpperCase().padStart(4, "0");
      warnings.push({
        code: "letter",
        chapter,
        message: `The fonts of the PDF have no shape for “${letter}” (U+${code}), near “${place}”; ${standInLetter} stands in its place there.`,
      });
    }
  };
  look(book.title, null);
  look(book.author, null);
  for (const { doc } of book.chapters) {
    doc.descendants((node) => {
      if (node.isText) look(node.text!, chapterTitle(doc));
    });
  }
  return { letters, warnings };
}

/** Blanks, controls, joiners and marks on other letters have no shape of their own. */
function isShapeless(letter: string): boolean {
  return /^[\p{C}\p{Z}\p{M}\ufe00-\ufe0f]$/u.test(letter);
}
