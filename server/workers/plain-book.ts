import type { Book } from "@vennet/core/manuscript/book";
import { readChapter } from "@vennet/core/manuscript/chapter";
import type { ChapterRole } from "@vennet/core/manuscript/chapter-role";

/** A book as it crosses to another process: its documents are JSON that nobody on the way looks into. */
export interface PlainBook extends Omit<Book, "chapters"> {
  chapters: PlainChapter[];
}

interface PlainChapter {
  id: string;
  role: ChapterRole;
  title: string;
  document: string;
}

/** The book that crossed. */
export function bookOfPlain({ chapters, ...rest }: PlainBook): Book {
  return {
    ...rest,
    chapters: chapters.map(({ id, role, document }) => ({
      id,
      role,
      doc: readChapter(JSON.parse(document)),
    })),
  };
}
