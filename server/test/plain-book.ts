import type { Book } from "@vennet/core/manuscript/book";
import { chapterTitle, writeChapter } from "@vennet/core/manuscript/chapter";
import type { PlainBook } from "../workers/plain-book.ts";

/** A book as the database would give it, to cross to another process. */
export function plainBook({ chapters, ...rest }: Book): PlainBook {
  return {
    ...rest,
    chapters: chapters.map(({ id, role, doc }) => ({
      id,
      role,
      title: chapterTitle(doc),
      document: JSON.stringify(writeChapter(doc)),
    })),
  };
}
