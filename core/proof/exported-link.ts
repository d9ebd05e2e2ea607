import { CodedError } from "../errors.ts";

/** Where a link of an exported file leads, as the file itself says it. */
export type ExportedDestination =
  | { kind: "address"; address: string }
  /** A jump inside the file. `landing` are the words that stand there, the line or block itself before what follows; null where the file has no such place. */
  | { kind: "place"; target: string; landing: string | null }
  /** A file that was exported along, or ought to have been. */
  | { kind: "file"; path: string };

/** A link as it was read back from an exported file's own bytes. */
export interface ExportedLink {
  destination: ExportedDestination;
  /** The words it covers, with the text alternatives of pictures, blanks folded. */
  text: string;
  /** What a screen reader is told about it besides: the alternate description, or null. */
  description: string | null;
  /** Where in the file it stands: a page of a PDF, counted from 1, or a file of an e-book, or a web page. */
  where: string;
  /** The page's number, for joining a link that breaks over two pages; null where there are none. */
  page: number | null;
  /** The boxes that it takes on the page, one for each line, in points from its lower left corner; empty where there are no pages. */
  boxes: Box[];
  /**
   * Whether the format has it by itself: an entry of its contents list, or the number of a note at the foot
   * of a page. Such links are nobody's.
   */
  apparatus: boolean;
}

/** Left, lower, right and upper edge. */
export type Box = readonly [number, number, number, number];

/** What a format, by its standard, cannot say or says in its own way: what a proof must not ask of it. */
export interface FormatTraits {
  /** Whether it is set in pages: words are letters at places, areas have none, and links may break over pages. */
  isPaged: boolean;
  /** Whether notes are its own, and whoever shows them makes the ways there and back. */
  hasOwnNotes: boolean;
  /** Whether the book's title stands above its text. */
  hasTitle: boolean;
}

/** Everything that reading an exported file gave. */
export interface ExportReading {
  traits: FormatTraits;
  pages: number | null;
  /** The files that came along, by the paths by which links lead to them. */
  files: ReadonlyMap<string, Uint8Array>;
  /** The number printed on the page on which each named place falls; empty where there are no pages. */
  pageOfPlace: ReadonlyMap<string, string>;
  links: ExportedLink[];
}

/** Words with each run of blanks as one, and none at the ends: what a reader sees of them. */
export function foldBlanks(text: string): string {
  return text.replace(/\s+/g, " ").trim();
}

/** The exported file could not be read back. */
export class ProofError extends CodedError {
  declare readonly code: "unreadable";
  constructor(code: "unreadable", message: string) {
    super(code, message);
  }
}
