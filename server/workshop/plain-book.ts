import type { Book } from "@vennet/core/manuscript/book";
import { writeChapter } from "@vennet/core/manuscript/chapter";
import type { PlainBook } from "./tasks.ts";

/** A book as it can cross to another process. */
export function plainBook({ chapters, ...rest }: Book): PlainBook {
  return {
    ...rest,
    chapters: chapters.map(({ id, role, doc }) => ({ id, role, document: writeChapter(doc) })),
  };
}
