import { kindOf, type Destination } from "../destination/kinds/kinds.ts";
import { behindPath } from "../destination/kinds/file.ts";
import type { BookIndex, IndexedPlace } from "../manuscript/book-index.ts";
import type { TravellingFile } from "./travelling-files.ts";

/** How a link leaves the house: as an address, a jump inside the book, a file that comes along, or words without a link. */
export type Travel =
  | { kind: "address"; address: string }
  | { kind: "place"; place: IndexedPlace }
  | { kind: "file"; file: TravellingFile; href: string }
  | { kind: "words"; reason: string };

/** The way as an href, with what a format writes for a place; null where it stays words. */
export function hrefOfTravel(way: Travel, ofPlace: (place: IndexedPlace) => string): string | null {
  switch (way.kind) {
    case "words":
      return null;
    case "file":
      return way.href;
    case "address":
      return way.address;
    case "place":
      return ofPlace(way.place);
  }
}

/** What an export makes of a destination. @param keepsRelative whether paths to files that are not the book's stay */
export function travel(
  destination: Destination,
  { places }: BookIndex,
  files: ReadonlyMap<string, TravellingFile>,
  keepsRelative = false,
): Travel {
  const way = kindOf(destination).outside(destination);
  if (way.kind === "place") {
    const place = places.get(way.target);
    return place === undefined
      ? { kind: "words", reason: `The book has no place “${way.target}”.` }
      : { kind: "place", place };
  }
  if (way.kind === "file") {
    const file = files.get(way.file);
    return file
      ? { kind: "file", file, href: file.path + behindPath(way.at) }
      : { kind: "words", reason: "The companion file is gone. Give the link another destination." };
  }
  if (way.kind === "relative")
    return keepsRelative ? { kind: "address", address: way.path } : { kind: "words", reason: way.reason };
  return way;
}
