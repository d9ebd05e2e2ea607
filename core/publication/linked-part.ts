import type { Destination } from "../destination/kinds/kinds.ts";
import type { LinkEffect } from "../manuscript/change-links.ts";
import type { OwnLook } from "../manuscript/looks.ts";
import type { Place } from "../manuscript/outline.ts";
import type { LinkDifference } from "../manuscript/versions.ts";

/** A link as every room sees it that asks a publication for its links, whatever the publication is. */
export interface PublicationLink {
  id: string;
  /** The words that it covers, or the text alternative of what it is on. */
  text: string;
  /** The words in each paragraph that it runs through. */
  parts: readonly { text: string }[];
  destination: Destination;
  description: string | null;
  /** Whether it looks like the text around it. */
  asText: boolean;
  /** A look of its own; null where it has that of its kind. */
  look: OwnLook | null;
  /** What it is on. */
  on: "words" | "picture" | "hotspot" | "reference";
  /** The words of the heading that it stands under; empty before the first. */
  under: string;
}

/**
 * A part of a publication that is read and changed by itself, as a chapter of a manuscript is. Ledger, mends, bulk
 * edits and history know no more of a publication than this, so a new kind of publication is a new such part.
 */
export interface LinkedPart<Content> {
  /** What it is kept as. */
  readonly content: Content;
  /** What lists call it. */
  readonly title: string;
  /** How many words it has of its author’s. */
  readonly words: number;
  /** Its content as JSON keeps it. */
  toJson(): unknown;
  /** Its links, in reading order. */
  links(): readonly PublicationLink[];
  /** Its landing places, in reading order. */
  places(): readonly Place[];
  /**
   * The part with links changed, all at once.
   * @returns the part as it is then, itself where nothing changed, and how many links did
   */
  changed(effectOn: (link: PublicationLink) => LinkEffect): { part: LinkedPart<Content>; count: number };
  /** What of its links differs in a later state of it. */
  differences(later: LinkedPart<Content>): LinkDifference[];
  /**
   * The part with differences taken back where the links are still as the difference left them.
   * @returns the part as it is then, and how many links are as they were before
   */
  takenBack(differences: readonly LinkDifference[]): { part: LinkedPart<Content>; count: number };
}
