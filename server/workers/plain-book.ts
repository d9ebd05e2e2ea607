import type { Book, PictureFile } from "@vennet/core/manuscript/book";
import type { ChapterRole } from "@vennet/core/manuscript/chapter-role";
import { readChapter, writeChapter, type ChapterJson } from "@vennet/core/manuscript/chapter";

/** A book as it crosses to another process: its documents as JSON. */
export interface PlainBook extends Omit<Book, "chapters"> {
  chapters: { id: string; role: ChapterRole; document: ChapterJson }[];
  pictures: PictureFile[];
}

/** A book as it can cross to another process. */
export function plainBook({ chapters, ...rest }: Book): PlainBook {
  return {
    ...rest,
    chapters: chapters.map(({ id, role, doc }) => ({ id, role, document: writeChapter(doc) })),
  };
}

/** The book that crossed. */
export function bookOfPlain({ chapters, ...rest }: PlainBook): Book {
  return {
    ...rest,
    chapters: chapters.map(({ id, role, document }) => ({ id, role, doc: readChapter(document) })),
  };
}
