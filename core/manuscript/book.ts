import type { FilePlaces } from "./file-places.ts";
import type { Node } from "prosemirror-model";
import type { BookFonts, FontFace } from "./book-fonts.ts";
import type { ChapterRole } from "./chapter-role.ts";
import { BookIndex } from "./book-index.ts";
import type { Conventions } from "./conventions.ts";
import type { LinkLooks } from "./looks.ts";
import type { PageLayout } from "./page-layout.ts";
import { placesOf } from "./outline.ts";
import { pictureAttrs, type PictureAttrs } from "./attributes.ts";

/** A picture's bytes with what is needed to ship them. */
export interface PictureFile {
  id: string;
  mediaType: "image/png" | "image/jpeg" | "image/gif";
  bytes: Uint8Array;
}

/** What is known of a file that goes with the book. */
export interface CompanionFile {
  name: string;
  mediaType: string;
  /** Bytes. */
  size: number;
  /** Which pages and places it has, to which links can lead; left out where that is not known. */
  places?: FilePlaces | undefined;
  /** Its own links that lead readers nowhere, each with the first page on which it stands; left out where none is known. */
  deadEnds?: readonly { to: string; page: number }[];
}

/** A whole book, as the exports take it. */
export interface Book {
  /** A permanent identifier, a UUID. */
  id: string;
  title: string;
  author: string;
  /** A BCP 47 language tag. */
  language: string;
  /** When its text was last changed, ISO 8601 in UTC. */
  modified: string;
  /** In reading order; companion pages come after all chapters. */
  chapters: BookChapter[];
  pictures: PictureFile[];
  /** The companion files by their ids. */
  files: ReadonlyMap<string, CompanionFile>;
  /** The bytes of those that an export takes along; none where nothing is exported. */
  fileBytes: ReadonlyMap<string, Uint8Array>;
  /** Whether the author leaves the companion files out of this export. */
  leavesFiles: boolean;
  looks: LinkLooks;
  conventions: Conventions;
  /** How the pages of its PDF are laid out. */
  layout: PageLayout;
  /** In which of the author's own fonts it is set. */
  fonts: BookFonts;
  /** The faces that the author brought; none where nothing is set. */
  fontFaces: readonly FontFace[];
}

export interface BookChapter {
  id: string;
  role: ChapterRole;
  doc: Node;
}

type Texts = { chapters: { doc: Node }[] };

/** How a picture's file name ends, by its media type. */
export const pictureSuffix: Record<PictureFile["mediaType"], string> = {
  "image/png": "png",
  "image/jpeg": "jpg",
  "image/gif": "gif",
};

/** The ids of the picture files that a book's text shows. */
export function usedPictures(book: Texts): Set<string> {
  const used = new Set<string>();
  for (const picture of picturesIn(book)) if (picture.file !== null) used.add(picture.file);
  return used;
}

/** Every picture of a book's text, in reading order. */
export function picturesIn(book: Texts): PictureAttrs[] {
  const found: PictureAttrs[] = [];
  for (const { doc } of book.chapters) {
    doc.descendants((node) => {
      if (node.type.name === "picture") found.push(pictureAttrs(node));
    });
  }
  return found;
}

/** The landing places of a book, with their numbers. */
export function indexOf(book: Pick<Book, "title" | "language" | "chapters" | "conventions">): BookIndex {
  const chapters = book.chapters.map(({ role, doc }) => ({ role, places: placesOf(doc) }));
  return new BookIndex(chapters, book.conventions, book);
}
