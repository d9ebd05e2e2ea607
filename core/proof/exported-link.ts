/** Where a link of an exported file leads, as the file itself says it. */
export type ExportedDestination =
  | { as: "address"; address: string }
  /** A jump inside the file. `lands` says whether the file really has that place. */
  | { as: "place"; target: string; lands: boolean }
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
  /**
   * Whether the format has it by itself: an entry of its contents list, or the number of a note at the foot
   * of a page. Such links are nobody's.
   */
  apparatus: boolean;
}

export type ExportFormat = "pdf" | "epub" | "web";

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
