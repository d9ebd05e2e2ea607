import type { Destination } from "../../destination/kinds/kinds.ts";
import type { BookIndex, IndexedPlace } from "../../manuscript/book-index.ts";
import { hrefOfTravel, travel } from "../travel.ts";
import type { TravellingFile } from "../travelling-files.ts";

/** Where a page of the PDF begins in a chapter: before so many characters of its text, notes aside. */
export interface PageBreak {
  offset: number;
  label: string;
}

/** What the XHTML of one page needs to know of the rest of the book. */
export interface PageContext {
  index: BookIndex;
  /** The index of the chapter that is written. */
  chapter: number;
  /** The name of the page that is written, and of the page on which a place stands. */
  page: string;
  pageOf: (place: Pick<IndexedPlace, "chapter" | "note">) => string;
  /** E-books say what their parts are by `epub:type`; web pages open windows. */
  medium: "epub" | "web";
  /** A picture's address and its size in pixels, or null where it did not travel. */
  picture: (file: string) => ShownPicture | null;
  /** The companion files that come along. */
  files: ReadonlyMap<string, TravellingFile>;
  /** Where the pages of the PDF begin in the chapter that is written. */
  pageBreaks: readonly PageBreak[];
  /** What the page holds beside HTML, as package documents call it (EPUB 3.3, D.5); the writer adds to it. */
  holds: Set<"svg" | "mathml">;
  /** Ids already written on this page; two equal ids would be invalid. */
  usedIds: Set<string>;
}

export interface ShownPicture {
  href: string;
  width: number;
  height: number;
}

/** Where a link leads, seen from the page; null where it cannot travel. */
export function hrefOf(context: PageContext, destination: Destination): string | null {
  const way = travel(destination, context.index, context.files);
  return hrefOfTravel(way, (place) => hrefOfPlace(context, place));
}

/** Where a jump to a place leads, seen from the page. */
export function hrefOfPlace(context: PageContext, place: IndexedPlace): string {
  return hrefTo(context, context.pageOf(place), place.id);
}

/** Where a jump to an id of a page leads, seen from the page that is written. */
export function hrefTo(context: PageContext, page: string, id: string): string {
  return `${page === context.page ? "" : page}#${id}`;
}

/** The id attribute by which a link is found again; what goes on in the next paragraph has none. */
export function linkId(context: PageContext, id: string): string {
  if (context.usedIds.has(id)) return "";
  context.usedIds.add(id);
  return ` id="${id}"`;
}
