import type { Destination } from "../destination/destination.ts";

/** How a link leaves the house: as an address, as a jump inside the book, or as words without a link. */
export type Travel =
  | { as: "address"; address: string }
  | { as: "place"; target: string; chapter: number }
  | { as: "words"; reason: string };

/**
 * What an export makes of a destination. `places` maps each landing place's id to the index of its
 * chapter.
 */
export function travel(destination: Destination, places: Map<string, number>): Travel {
  switch (destination.kind) {
    case "web":
    case "email":
      return { as: "address", address: destination.address };
    case "place": {
      const chapter = places.get(destination.target);
      return chapter === undefined
        ? { as: "words", reason: `The book has no place “${destination.target}”.` }
        : { as: "place", target: destination.target, chapter };
    }
    case "file":
      return {
        as: "words",
        reason: `The file “${destination.path}” does not travel with the book. Give a web address, or bring the manuscript in with an address from which its relative links start.`,
      };
  }
}
