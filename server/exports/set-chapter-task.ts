import { CodedError } from "@vennet/core/errors";
import { BookIndex, type PlacesOfChapter } from "@vennet/core/manuscript/book-index";
import { placesOf } from "@vennet/core/manuscript/outline";
import { longWordsOf } from "@vennet/core/publish/formats/pdf/long-words";
import { ownFonts } from "@vennet/core/publish/own-fonts";
import { bookOfPlain, type PlainBook } from "../workers/plain-book.ts";
import { typesetter } from "../workers/typesetter.ts";

/** A chapter, and what is to be known of the rest of its book to set it. */
export interface ChapterToSet {
  /** The book with this chapter alone: texts of the others are long, and nothing of them is set. */
  book: PlainBook;
  /** Which of all chapters it is. */
  at: number;
  /** The places of all chapters. */
  chapters: readonly PlacesOfChapter[];
  pageOfPlace: Record<string, string>;
}

/**
 * Sets one chapter without the others, as it will look in the PDF.
 * @throws CodedError `long-word` where it has a word that no page can hold
 */
export function run({ book: plain, at, chapters, pageOfPlace }: ChapterToSet): Uint8Array {
  const book = bookOfPlain(plain);
  const [{ doc }] = book.chapters as [(typeof book.chapters)[number]];
  const [longWord] = longWordsOf(doc);
  if (longWord) throw new CodedError("long-word", longWord.told);
  const asOpen = chapters.map((one, i) => (i === at ? { role: one.role, places: placesOf(doc) } : one));
  const index = new BookIndex(asOpen, book.conventions, book);
  const { faces } = ownFonts(book, "pdf");
  const alone = { at, index, pageOfPlace: new Map(Object.entries(pageOfPlace)) };
  return typesetter(faces).write(book, false, "none", alone).pdf;
}
