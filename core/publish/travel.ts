import type { Destination } from "../destination/destination.ts";
import type { BookIndex, IndexedPlace } from "../manuscript/book-index.ts";
import type { TravellingFile } from "./travelling-files.ts";

/** How a link leaves the house: as an address, a jump inside the book, a file that comes along, or words without a link. */
export type Travel =
  | { as: "address"; address: string }
  | { as: "place"; place: IndexedPlace }
  | { as: "file"; file: TravellingFile }
  | { as: "words"; reason: string };

/** What an export makes of a destination. */
export function travel(
  destination: Destination,
  { places }: BookIndex,
  files: ReadonlyMap<string, TravellingFile>,
): Travel {
  switch (destination.kind) {
    case "web":
    case "email":
      return { as: "address", address: destination.address };
    case "place": {
      const place = places.get(destination.target);
      return place === undefined
        ? { as: "words", reason: `The book has no place “${destination.target}”.` }
        : { as: "place", place };
    }
    case "file":
      if ("share" in destination) return { as: "address", address: destination.share };
      if ("file" in destination) {
        const file = files.get(destination.file);
        return file
          ? { as: "file", file }
          : { as: "words", reason: "The companion file is gone. Give the link another destination." };
      }
      return {
        as: "words",
        reason: `The file “${destination.path}” does not travel with the book. Give a web address, or bring the manuscript in with an address from which its relative links start.`,
      };
  }
}
