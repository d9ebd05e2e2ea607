import type { BookIndex } from "../../../manuscript/book-index.ts";
import type { TravellingFile } from "../../travelling-files.ts";
import type { PrintedAddresses } from "./options.ts";

/** A link as it is to be in the finished PDF, by the address that marks it in the typesetter's. */
export interface MarkedLink {
  marker: string;
  to: { address: string } | { place: string };
  description: string;
  /** The signpost list of which it is an entry. */
  list?: string;
}

/** What the chapters of a book that is set share. */
export interface BookBeingSet {
  readonly index: BookIndex;
  readonly files: ReadonlyMap<string, TravellingFile>;
  readonly picturePaths: ReadonlyMap<string, string>;
  /** How wide a line of the text is, in sizes of its letters. */
  readonly line: number;
  readonly addresses: PrintedAddresses;
  readonly markerBase: string;
  readonly marked: MarkedLink[];
  /** The web addresses that are printed in a list at the end, in parts between which a line may end. */
  readonly printed: string[][];
  printedCount: number;
  /** The landing places that have been set. */
  readonly labelled: Set<string>;
  /** The places whose page numbers are printed. */
  readonly paged: Set<string>;
  /** Places inside headings, each with its heading's, where they land. */
  readonly held: Map<string, string>;
}
