/** What companion files and places are called; a destination holds only their ids. */
export interface DestinationNames {
  files: ReadonlyMap<string, string>;
  places: ReadonlyMap<string, string>;
  /** What places of companion files are called, by file and what addresses have behind their `#` (`inFileKey`). */
  inFiles?: ReadonlyMap<string, string>;
}

/** What is asked to learn how a destination is, and of whom: a host with its port, or `mail:` for name servers. */
export interface Asked {
  address: string;
  host: string;
}

/** What becomes of a destination that leaves the house: an address, a jump, a file, or a path of which nothing more is known. */
export type Outside =
  | { kind: "address"; address: string }
  | { kind: "place"; target: string }
  /** `at` names a page or place in it, as behind the `#` of an address; null for the file as a whole. */
  | { kind: "file"; file: string; at: string | null }
  /** Where a text is gone on with, it leads to whatever lies beside it; nowhere else, for the reason. */
  | { kind: "relative"; path: string; reason: string };

/** Reads one field of a value from outside: a text that is not empty and not longer than an address may be. */
export type ReadField = (key: string) => string;

/** Everything that is asked of one kind of destination. `D` is its shape in a manuscript. */
export interface DestinationKindOf<D> {
  /** The schemes of the addresses that are of this kind, in lower case with their colons. */
  schemes: readonly string[];
  /** What an export makes of its links, in words for the author. */
  becomes: string;
  /**
   * Reads an address of one of its schemes.
   * @throws DestinationError with what is wrong
   */
  fromAddress?(address: string): D;
  /**
   * Reads what an author typed or pasted, after what clings to it was taken off; null where it is not of this kind.
   * @returns the destination, and what was changed to make it one, in words for the author
   * @throws DestinationError where it is meant as such and is wrong
   */
  fromTyped?(text: string): { destination: D; mended?: string } | null;
  /** Whether a word of running text is such an address beyond doubt, and may become a link without asking. */
  isPlain?(word: string): boolean;
  /**
   * Says whether a value of this kind that came from outside may stand in a manuscript.
   * @throws DestinationError with what is wrong
   */
  assert(given: Readonly<Record<string, unknown>>, text: ReadField): void;
  /** One line of text that stands for it, and for no other: what lists are grouped by. */
  write(destination: D): string;
  /** As the author reads it, whole: names in place of ids. */
  name(destination: D, names: DestinationNames): string;
  /** The same in few words. */
  short(destination: D, names: DestinationNames): string;
  /** What is asked to learn how it is; null where nothing is. */
  asked(destination: D): Asked | null;
  /** What becomes of it outside. */
  outside(destination: D): Outside;
}
