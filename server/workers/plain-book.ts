import type { Book } from "@vennet/core/manuscript/book";
import { finishedAsDocument } from "@vennet/core/finished/parts";
import { ManuscriptChapter } from "@vennet/core/publication/manuscript-chapter";
import type { ChapterRole } from "@vennet/core/manuscript/chapter-role";
import { readPart } from "../chapters/read-part.ts";

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
      doc: documentOf(document),
    })),
  };
}

/** A part as a document of the one schema, by which rules look at it. */
function documentOf(text: string): Book["chapters"][number]["doc"] {
  const part = readPart(text);
  return part instanceof ManuscriptChapter ? part.content : finishedAsDocument(part.content)!;
}
