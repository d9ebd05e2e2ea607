import type { DestinationKind } from "../../../destination/kinds/kinds.ts";
import type { Direction } from "../../../manuscript/direction.ts";
import type { OwnLook } from "../../../manuscript/looks.ts";
import type { MathElement } from "../../../manuscript/math.ts";
import type { SetOff } from "../../../manuscript/set-off.ts";
import type { TypesetLanguage } from "./typeset-language.ts";
import type { Hotspot } from "../../../manuscript/hotspot.ts";

/** A language as the typesetter takes it, and its whole tag. */
export type SetLanguage = TypesetLanguage & { tag: string };

// What the typesetter's template reads. The author's text is data in it, never markup.

/** How words are shown, as the template knows it. */
export type SetMark =
  "strong" | "emphasis" | "code" | "raised" | "lowered" | "struck" | "underlined" | "small-capitals";

/** A run of words, a link, or another thing that stands in a line. */
export type SetInline =
  /** `whole` where none of its words may be parted at a line's end, `parted` where they may even in a heading. */
  | { kind: "text"; words: string; marks?: SetMark[]; language?: SetLanguage; whole?: true; parted?: true }
  | { kind: "break" }
  /** A formula, its words for who does not see it, and whether it stands in a line of its own. */
  | { kind: "formula"; math: MathElement; alt: string; display: boolean }
  /** The sign of what is to do, or done. */
  | { kind: "task"; sign: string; done: boolean }
  /** Nothing, at which a line may end. */
  | { kind: "may-break" }
  | { kind: "anchor"; label: string }
  | { kind: "link"; look: DestinationKind | "text" | OwnLook; url: string; content: SetInline[] }
  /** The number of the page on which a place falls. */
  | { kind: "page"; place: string }
  | { kind: "raised-link"; words: string; url: string }
  | SetTextLink
  /** For print: an address as words in a note, in parts between which a line may end, or its number in the list at the end. */
  | { kind: "address"; number: number; address: string[] | null }
  | ({ kind: "note"; footnote: string } & SetNote)
  | { kind: "note-again"; number: string; footnote: string }
  | SetPicture;

export interface SetTextLink {
  kind: "text-link";
  words: string;
  url: string;
}

export interface SetPicture {
  kind: "picture";
  file: string;
  alt: string;
  decorative: boolean;
  /** Whether it stands alone on its line, and has its own width up to that of the line. */
  alone: boolean;
  /** How wide a line is among whose words it has its own size, in sizes of the text's letters; null where it is as high as the line. */
  room: number | null;
  /** The landing places at its upper edge. */
  places: string[];
  percent: number | null;
  hotspots: SetHotspot[];
}

/** An area in shares of its picture's width and height. */
export interface SetHotspot {
  url: string;
  x: number;
  y: number;
  width: number;
  height: number;
  frame: Hotspot["frame"];
  shape: Hotspot["shape"];
}

/** A note's words with the ways back to the text. */
export interface SetNote {
  number: string | null;
  /** Its landing place, where that does not stand in its words. */
  label: string | null;
  content: SetBlock[];
  returns: SetTextLink[];
}

export interface SetCaption {
  kind: "caption";
  lead: string | null;
  content: SetInline[];
}

/**
 * A block, its direction where that is not the book's, and the notes that it calls: in their place the file has what is asked
 * of it for them (`Keep`), or nothing.
 */
export type SetBlock = SetKind & { direction?: Direction; keep?: readonly string[] };

type SetKind =
  | { kind: "paragraph"; content: SetInline[]; align?: "center" | "end" }
  | { kind: "listing" | "credit"; content: SetInline[] }
  /** `part`: whether it is the title of a part, which has a page of its own. */
  | {
      kind: "heading";
      level: number;
      label: string | null;
      number: string | null;
      content: SetInline[];
      part: boolean;
    }
  | { kind: "quote"; look: SetOff; content: SetBlock[] }
  /** `marked`: whether each item has a sign of its own, and no dot. */
  | { kind: "bullets"; items: SetBlock[][]; marked?: boolean }
  | { kind: "numbers"; start: number; items: SetBlock[][] }
  /** `repeats`: whether its head stands on each of its pages; one with links must not, since what is repeated is no text (ISO 14289-1, 7.1). */
  | { kind: "table"; columns: number; head: SetCell[][]; rows: SetCell[][]; repeats: boolean }
  | { kind: "definitions"; entries: SetDefinition[] }
  | SetCaption
  | { kind: "captioned"; body: SetBlock[]; caption: SetCaption; first: boolean }
  | { kind: "signposts"; label: string | null; heading: string; entries: SetSignpost[] }
  | { kind: "return"; words: string; url: string }
  | { kind: "notes"; notes: SetNote[] }
  | { kind: "section-break" | "page-break" }
  /** Something of a list, quote or table that lies too deep to be set within the others. */
  | { kind: "deep"; step: number; marker: string | null; content: SetBlock[] };

/** A term, and what it means; either may be missing. */
export interface SetDefinition {
  term: SetInline[];
  meaning: SetBlock[];
}

export interface SetCell {
  colspan: number;
  rowspan: number;
  align: string | null;
  head: boolean;
  /** Whether it may go on on the next page. */
  breaks: boolean;
  content: SetBlock[];
}

export interface SetSignpost {
  depth: number;
  words: string;
  /** The place whose page is told. */
  page: string;
  url: string;
}

export interface SetChapter {
  title: string;
  blocks: SetBlock[];
}
