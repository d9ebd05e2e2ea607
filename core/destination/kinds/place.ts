import type { DestinationKindOf } from "./kind.ts";

/** A place in the book: the id of a heading or an anchor. */
export interface PlaceDestination {
  kind: "place";
  target: string;
}

/** In this book: a landing place, by its id. */
export const place: DestinationKindOf<PlaceDestination> = {
  schemes: [],
  becomes: "Jump to the exact place.",
  assert: (_, text) => void text("target"),
  write: ({ target }) => `#${target}`,
  name: ({ target }, { places }) => places.get(target) ?? `#${target}`,
  short: ({ target }, { places }) => places.get(target) ?? `#${target}`,
  asked: () => null,
  outside: ({ target }) => ({ kind: "place", target }),
};
