import type { Paragraph } from "docx";
import type { BookIndex } from "../../../manuscript/book-index.ts";
import type { Book, PictureFile } from "../../../manuscript/book.ts";
import type { ContentControls } from "./content-controls.ts";
import type { DocxLinks } from "./docx-links.ts";
import type { Numberings } from "./numberings.ts";

/** What the chapters of a book that is written share. */
export interface BookBeingWritten {
  readonly book: Book;
  readonly index: BookIndex;
  readonly pictures: ReadonlyMap<string, PictureFile>;
  readonly links: DocxLinks;
  readonly footnotes: Record<string, { children: Paragraph[] }>;
  readonly numbering: Numberings;
  /** The numbers of the notes that have been referred to, by their ids. */
  readonly referred: Map<string, number>;
  readonly controls: ContentControls;
}
