import { DestinationError } from "../errors.ts";
import type { DestinationKindOf } from "./kind.ts";

/** A place in the book: the id of a heading or an anchor. */
export interface PlaceDestination {
  kind: "place";
  target: string;
}

/** The longest id by which a place can be kept. */
export const longestPlaceId = 64;

/** In this book: a landing place, by its id. */
export const place: DestinationKindOf<PlaceDestination> = {
  schemes: [],
  becomes: "Jump to the exact place.",
  assert: (_, text) => {
    if (text("target").length > longestPlaceId)
      throw new DestinationError(
        "address",
        `A place is known by an id of at most ${longestPlaceId} characters.`,
      );
  },
  write: ({ target }) => `#${target}`,
  name: ({ target }, { places }) => places.get(target) ?? `#${target}`,
  short: ({ target }, { places }) => places.get(target) ?? `#${target}`,
  asked: () => null,
  outside: ({ target }) => ({ kind: "place", target }),
};
