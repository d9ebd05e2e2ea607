import { checkChapter } from "@vennet/core/checks/check-chapter";
import type { CheckContext, Finding } from "@vennet/core/checks/finding";
import { BookIndex } from "@vennet/core/manuscript/book-index";
import { readChapter, type ChapterJson } from "@vennet/core/manuscript/chapter";
import { placesOf } from "@vennet/core/manuscript/outline";
import type { SurroundingBook } from "../text/book-numbers";

// Checks the open chapter beside the page, so that the rules never hold a key up.

/** What the rules need to know of the book around the chapter. */
export interface CheckBasis {
  chapterId: string;
  book: Pick<SurroundingBook, "title" | "language" | "conventions" | "chapters">;
  known: Omit<CheckContext, "index" | "chapter" | "language">;
}

/** What the page tells: the basis when it has changed, and the chapter to be checked by it. */
export type ToCheck = { basis: CheckBasis } | { turn: number; document: ChapterJson };

export interface Checked {
  turn: number;
  findings: Finding[];
}

let basis: CheckBasis | null = null;

self.addEventListener("message", ({ data }: MessageEvent<ToCheck>) => {
  if ("basis" in data) {
    basis = data.basis;
    return;
  }
  if (!basis) return;
  const { chapterId, book, known } = basis;
  const doc = readChapter(data.document);
  const chapters = book.chapters.map(({ id, role, places }) => ({
    role,
    places: id === chapterId ? placesOf(doc) : places,
  }));
  const findings = checkChapter(doc, {
    ...known,
    language: book.language,
    index: new BookIndex(chapters, book.conventions, book),
    chapter: Math.max(
      0,
      book.chapters.findIndex(({ id }) => id === chapterId),
    ),
  });
  self.postMessage({ turn: data.turn, findings } satisfies Checked);
});
