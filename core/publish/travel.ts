import type { Destination } from "../destination/destination.ts";
import type { Book } from "../manuscript/book.ts";
import type { BookIndex, IndexedPlace } from "../manuscript/book-index.ts";

/** How a link leaves the house: as an address, as a jump inside the book, or as words without a link. */
export type Travel =
  { as: "address"; address: string } | { as: "place"; place: IndexedPlace } | { as: "words"; reason: string };

/** What an export makes of a destination. */
export function travel(destination: Destination, { places }: BookIndex, files: Book["files"]): Travel {
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
        const name = files.get(destination.file)?.name;
        return {
          as: "words",
          reason:
            name === undefined
              ? "The companion file is gone. Give the link another destination."
              : `The companion file “${name}” does not travel inside the book yet. Give a shared address in its place.`,
        };
      }
      return {
        as: "words",
        reason: `The file “${destination.path}” does not travel with the book. Give a web address, or bring the manuscript in with an address from which its relative links start.`,
      };
  }
}
