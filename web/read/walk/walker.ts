/** A link of an exported file, as its reader has it. */
export interface FileLink {
  /** Where it stands, as the link proof tells it. */
  where: string;
  /** Where it stands, as people say it. */
  on: string;
  words: string;
}

/** Where following a link has led. */
export type Landed =
  /** `inColumns`: the words there cell by cell, on a page whose lines go on through cells. */
  | { at: "place"; on: string; words: string; inColumns?: readonly string[]; picture: string | null }
  | { at: "address"; address: string }
  | { at: "file"; path: string; isThere: boolean }
  | { at: "nowhere" }
  /** The press met something else, or nothing. */
  | { at: "missed"; what: string };

/** A reader as a robot drives it: by what a press on it does. */
export interface Walker {
  /** Every link of the file, in order. */
  links: () => Promise<FileLink[]>;
  /** Goes to where a link stands, and gives a picture of it. */
  show: (link: FileLink) => Promise<string | null>;
  /** Follows a link that is shown. */
  follow: (link: FileLink) => Promise<Landed>;
  /** Returns to where the link stands. */
  back: () => Promise<void>;
}
