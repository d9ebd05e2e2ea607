import type { Node } from "prosemirror-model";
import { placesOf } from "./outline.ts";
import { pictureAttrs, type PictureAttrs } from "./schema.ts";

/** A picture's bytes with what is needed to ship them. */
export interface PictureFile {
  id: string;
  mediaType: "image/png" | "image/jpeg" | "image/gif";
  bytes: Uint8Array;
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
  chapters: { id: string; doc: Node }[];
  pictures: PictureFile[];
}

/** How a picture's file name ends, by its media type. */
export const pictureSuffix: Record<PictureFile["mediaType"], string> = {
  "image/png": "png",
  "image/jpeg": "jpg",
  "image/gif": "gif",
};

/** The ids of the picture files that a book's text shows. */
export function usedPictures(book: Pick<Book, "chapters">): Set<string> {
  const used = new Set<string>();
  for (const picture of picturesIn(book)) if (picture.file !== null) used.add(picture.file);
  return used;
}

/** Every picture of a book's text, in reading order. */
export function picturesIn(book: Pick<Book, "chapters">): PictureAttrs[] {
  const found: PictureAttrs[] = [];
  for (const { doc } of book.chapters) {
    doc.descendants((node) => {
      if (node.type.name === "picture") found.push(pictureAttrs(node));
    });
  }
  return found;
}

/** The ids of all landing places, each with the index of its chapter. The first of two equal ids counts. */
export function placeIndex(book: Pick<Book, "chapters">): Map<string, number> {
  const index = new Map<string, number>();
  book.chapters.forEach((chapter, i) => {
    for (const place of placesOf(chapter.doc)) if (!index.has(place.id)) index.set(place.id, i);
  });
  return index;
}
