import type { Destination } from "../../destination/kinds/kinds.ts";
import type { BookIndex } from "../../manuscript/book-index.ts";
import { isSign, lettersOf, type FileLink } from "./file-links.ts";

/** The letters where a link leads: as they stand there, and without a letter with which a note leads back to it. */
export function landingsOf(link: FileLink): string[] {
  const { landing } = link;
  if (landing === null) return [];
  const sign = isSign(link) ? lettersOf(link.words) : "";
  return sign !== "" && landing.startsWith(sign) ? [landing, landing.slice(sign.length)] : [landing];
}

/**
 * Whether letters begin within those of a heading, and go on behind it where that ends. What begins at its very end cannot be
 * told by letters from the place behind it: readers that know headings tell it as the heading.
 */
export function isWithin(heading: string, letters: string): boolean {
  for (let from = 1; from + fewestOfHeading <= heading.length; from++) {
    const rest = heading.slice(from, from + 8);
    if (letters.startsWith(rest)) return true;
  }
  return false;
}

/** Fewer letters tell no place. */
const fewestOfHeading = 3;

/** Whether what stands at a place of a file and at one of a book begins alike, as far as both are known. */
export function isSamePlace(asked: string, given: string): boolean {
  // What stands between may be told by one reader only, as words in a picture.
  const shorter = Math.min(asked.length, given.length, 8);
  return asked.slice(0, shorter) === given.slice(0, shorter);
}

/** Whether a link of a book leads to a caption, whose label is the book's own. */
export function isCaption({ places }: BookIndex, destination: Destination): boolean {
  const kind = destination.kind === "place" ? places.get(destination.target)?.kind : undefined;
  return kind === "figure" || kind === "table";
}

/** The letters of the title or heading to which a link of a book leads; empty for any other. */
export function headingOf({ places }: BookIndex, destination: Destination): string {
  const place = destination.kind === "place" ? places.get(destination.target) : undefined;
  return place?.kind === "title" || place?.kind === "heading" ? lettersOf(place.text) : "";
}
