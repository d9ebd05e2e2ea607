import { CodedError } from "../errors.ts";

/** What stands where a jump lands. */
export interface Landing {
  /** The words there, the line or block itself before what follows; null where the file has no such place. */
  landing: string | null;
  /** Of a page, on which a line goes on through cells and columns: the words there cell by cell, from each that it may be. */
  inColumns?: readonly string[];
}

/** Where a link of an exported file leads, as the file itself says it. */
export type ExportedDestination =
  | { kind: "address"; address: string }
  /** A jump inside the file. */
  | (Landing & {
      kind: "place";
      target: string;
      /** The words of the links on the line of a page on which it lands; empty where there are no pages. */
      linksThere?: readonly string[];
    })
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
  /** Why a press where it ought to be does not reach it; null where it does. */
  unreachable: string | null;
  /** What a screen reader calls it in place of its words; null where those are its name. */
  name: string | null;
  /** What it says that it is (DPUB-ARIA 1.1); null where it is a link like all others. */
  role: string | null;
  /** Whether it opens a window of its own. */
  opensWindow: boolean;
  /** Whether it stands in a note. */
  isInNote: boolean;
  /** The part of a picture that it takes, as shares of the picture's width and height; null where it stands on words. */
  area: ReadArea | null;
}

/** What most links are besides where they lead and what they say. */
export const likeAllOthers = {
  unreachable: null,
  name: null,
  role: null,
  opensWindow: false,
  isInNote: false,
  area: null,
} satisfies Partial<ExportedLink>;

/** An area of a picture as an exported file has it: its corners, or the two of the box that holds it. */
export interface ReadArea {
  shape: "rectangle" | "ellipse" | "polygon";
  points: [x: number, y: number][];
}

/** Something in an exported file that is no link and still does something to links. */
export interface Fault {
  where: string;
  what: string;
}

/** A list by which a reader finds the way, which the format makes by itself: an outline, a list of contents. */
export interface ReadList {
  /** What it is called where a fault of it is told. */
  name: string;
  /** How many levels of headings, titles of chapters among them, such a list has in this format. */
  levels: number;
  /** Whether levels are counted as headings are shown, where one that lies deeper than those before it allow is raised. */
  isAsShown: boolean;
  /** Whether the pages outside the reading order stand in it. */
  hasCompanions: boolean;
  /** Whether it is there even where the author's own text has a list of contents. */
  isOwn: boolean;
  entries: ReadEntry[];
}

/** A note as its mark shows it, where the format makes its notes by itself. */
export interface ReadNote {
  where: string;
  /** The mark; empty where readers' programs number notes. */
  words: string;
  /** The words on which a press on the mark lands; null where it leads to no note. */
  landing: string | null;
  /** Whether the note leads back to its mark; true where readers' programs make the way. */
  leadsBack: boolean;
}

/** A page of a file that has several, with the ways on from it that are no part of its text. */
export interface ReadPage {
  /** Its path in the file. */
  path: string;
  /** The names of the places in it. */
  places: ReadonlySet<string>;
  /** The words of each way on, and the path of the page that it opens; null where it opens none. */
  ways: readonly { words: string; opens: string | null }[];
}

export interface ReadEntry extends Landing {
  words: string;
  /** The names of the places to which it leads, where the file names some. */
  targets: readonly string[];
}

/** Left, lower, right and upper edge. */
export type Box = readonly [number, number, number, number];

/** What a format, by its standard, cannot say or says in its own way: what a proof must not ask of it. */
export interface FormatTraits {
  /** Whether it is set in pages: words are letters at places, areas have none, and links may break over pages. */
  isPaged: boolean;
  /** Whether notes are its own, and whoever shows them makes the ways there and back. */
  hasOwnNotes: boolean;
  /** Whether it keeps relative links to what is not the book's. */
  keepsRelative: boolean;
  /** Whether the book's title stands above its text. */
  hasTitle: boolean;
  /** Whether its links can open windows. */
  opensWindows: boolean;
  /** Whether its links say by a role what they are. */
  hasRoles: boolean;
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
  /** The boxes of the pictures on each page, counted from 1; empty where there are no pages. */
  pictures: ReadonlyMap<number, readonly Box[]>;
  /** The names of places in the order in which the file is read; empty where nothing but its text has one. */
  placesInOrder: readonly string[];
  /** The names of those to which nobody comes who reads on from page to page. */
  placesAside: ReadonlySet<string>;
  /** The notes that the format makes by itself, in the order of their marks in the text. */
  notes: ReadNote[];
  /** The lists by which a reader finds the way. */
  lists: ReadList[];
  /** Its pages, where readers go from one to the next by links; empty where the file is one, or whoever shows it turns pages. */
  linkedPages: readonly ReadPage[];
  /** What else of the file does something to links. */
  faults: Fault[];
}

/** Told how many pages of how many are read. */
export type TellPage = (page: number, of: number) => void;

/** Words with each run of blanks as one, and none at the ends: what a reader sees of them. */
export function foldBlanks(text: string): string {
  const isFolded = !/^\s|\s$|\s\s|[^\S ]/.test(text);
  return isFolded ? text : text.replace(/\s+/g, " ").trim();
}

/** The exported file could not be read back. */
export class ProofError extends CodedError {
  declare readonly code: "unreadable";
  constructor(code: "unreadable", message: string) {
    super(code, message);
  }
}

/** The address, the name of the place or the path of the file to which a link leads. */
export function valueOf(destination: ExportedLink["destination"]): string {
  if (destination.kind === "file") return destination.path;
  return destination.kind === "address" ? destination.address : destination.target;
}
