import type { ExportFormat } from "../publish/export-options.ts";

/** Where a link of an exported file leads, as the file itself says it. */
export type ExportedDestination =
  | { as: "address"; address: string }
  /** A jump inside the file. `landing` are the words that stand there, the line or block itself before what follows; null where the file has no such place. */
  | { as: "place"; target: string; landing: string | null }
  /** A file that was exported along, and its size in bytes; null where it is not there. */
  | { as: "file"; path: string; size: number | null };

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

/** Everything that reading an exported file gave. */
export interface ExportReading {
  format: ExportFormat;
  pages: number | null;
  /** The number printed on the page on which each named place falls; empty where there are no pages. */
  pageOfPlace: ReadonlyMap<string, string>;
  links: ExportedLink[];
}

/** Words with each run of blanks as one, and none at the ends: what a reader sees of them. */
export function foldBlanks(text: string): string {
  return text.replace(/\s+/g, " ").trim();
}

/** The exported file could not be read back. */
export class ProofError extends Error {
  override readonly name = "ProofError";
  constructor(
    readonly code: "unreadable",
    message: string,
  ) {
    super(message);
  }
}
