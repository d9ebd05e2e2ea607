import { kindOf } from "../destination/kinds/kinds.ts";
import type { ManuscriptLink } from "../proof/manuscript-links.ts";
import type { LinkInPlace } from "./linked-in-place.ts";

/** A link of a finished file as proofs show what was asked for, with what only its file's kind knows of it. */
export function linkAsAsked(
  { id, words, destination, description }: LinkInPlace,
  told: Pick<ManuscriptLink, "chapter" | "isArea" | "destination" | "name" | "landing">,
): ManuscriptLink {
  const outside = kindOf(destination).outside(destination);
  return {
    id,
    text: words,
    parts: [words],
    aroundFormulas: [null],
    isMade: false,
    description,
    expected:
      outside.kind === "place"
        ? { kind: "place", value: outside.target }
        : { kind: "address", value: outside.kind === "address" ? outside.address : told.destination },
    reason: null,
    isLeftOut: false,
    placeWords: null,
    isInNote: false,
    mark: null,
    opensWindow: false,
    role: null,
    screenName: null,
    area: null,
    isWholePicture: false,
    ...told,
  };
}
