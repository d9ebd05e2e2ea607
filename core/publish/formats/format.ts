import type { DestinationKind } from "../../destination/kinds/kinds.ts";
import type { FontFace } from "../../manuscript/book-fonts.ts";
import type { Book } from "../../manuscript/book.ts";
import type { ExportReading, TellPage } from "../../proof/exported-link.ts";
import type { ExportWarning, ForeseenChange } from "../export-warning.ts";
import type { Obstacle } from "../preflight.ts";
import type { Shapes } from "./pdf/script-fonts.ts";
import type { ChapterAlone } from "./pdf/typeset-book.ts";
import type { PrintedAddresses } from "./pdf/options.ts";
import type { Chosen, Options } from "./option.ts";

/** What links are told apart as, when an author is told what becomes of them. */
export type PlannedKind = DestinationKind | "shared" | "area" | "reference" | "note" | "signpost";

/** An exported file, and what could not go into it as it is. */
export interface Written {
  bytes: Uint8Array;
  /** Whether it is a folder in a zip, whose first entry is the file itself. */
  isFolder: boolean;
  warnings: ExportWarning[];
}

/** What an export has at hand besides the book. */
export interface WriteTools {
  /** What the file is to be called. */
  name: string;
  /** Sets a book's pages. @throws a CodedError with what the typesetter refuses */
  setPages(
    book: Book,
    accessible: boolean,
    addresses?: PrintedAddresses,
    alone?: ChapterAlone | null,
  ): { pdf: Uint8Array; warnings: ExportWarning[] };
  /** The usual faces of a book's text. */
  textFonts(): FontFace[];
  /** The last exported file that has pages; null where there is none. */
  lastPages: { name: string; bytes: Uint8Array } | null;
}

/** What is known before an export. */
export interface KnownBefore {
  /** What the typesetter's fonts have shapes for. */
  shapes: Shapes;
  /** Whether there is an exported file that has pages. */
  hasPages: boolean;
  /** The ids of pictures that cannot be decoded. */
  damaged: ReadonlySet<string>;
}

/** Everything that is to be known of a format in which books go out. */
export interface Format<O extends Options = Options, C = Chosen<O>> {
  mediaType: string;
  /** How the file's name ends. */
  suffix: string;
  /** What is told while it is written. */
  doing: string;
  options: O;
  /** Whether it is set in pages: cross-references may tell them, and places have one. */
  hasPages: boolean;
  /** Whether it is a text for going on with, in which relative links to whatever lies beside it stay. */
  keepsRelative?: boolean;
  /** What it makes of links, where that is not what is made of them everywhere. */
  becomes: Partial<Record<PlannedKind, string>>;
  /** What it makes of links of a kind besides, with these choices. */
  becomesToo?(kind: PlannedKind, options: C): string;
  /** Whether the file claims what no picture without words may break. */
  isStrict?(options: C): boolean;
  /** What of a book cannot be written so, found before it is tried. */
  obstacles?(book: Book): Obstacle[];
  /** What of a book goes out otherwise than it is, besides what does in every format. */
  foresees?(book: Book, options: C, known: KnownBefore): ForeseenChange[];
  /** Whether writing it needs the last file that has pages. */
  needsLastPages?(options: C): boolean;
  write(book: Book, options: C, tools: WriteTools): Promise<Written> | Written;
  /**
   * Reads the links out of such a file's own bytes, knowing nothing of the writer.
   * @param tell is told of each page that is read, where it is read by pages
   * @throws ProofError where it cannot be read
   */
  readBack(bytes: Uint8Array, tell?: TellPage): Promise<ExportReading> | ExportReading;
}
