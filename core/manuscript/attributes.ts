import type { Mark, Node } from "prosemirror-model";
import type { Destination } from "../destination/kinds/kinds.ts";
import type { Hotspot } from "./hotspot.ts";
import type { OwnLook } from "./looks.ts";

// What the nodes and marks of the schema carry, as types.

/** The attributes of a link mark. The id stays with the link through every edit. */
export interface LinkAttrs {
  id: string;
  destination: Destination;
  /** Words for screen readers and on hover (ISO 14289-1, alternate description), or null. */
  description: string | null;
  /** Whether it looks like the text around it, in place of the look of its kind. */
  asText: boolean;
  /** A look of its own, in place of that of its kind; null for none. */
  look: OwnLook | null;
  /** Whether a web page opens it in a new window. */
  newWindow: boolean;
}

/** What a new link is like besides. */
export const defaultLink = { asText: false, look: null, newWindow: false };

/** What a cross-reference says of its target. */
export type ReferenceForm = "text" | "number" | "page" | "page-and-text" | "above-or-below";

/** The attributes of a cross-reference: words that follow their target. */
export interface CrossReference {
  id: string;
  /** The id of a landing place. */
  target: string;
  form: ReferenceForm;
  /** What it says where there are no pages. */
  fallback: "text" | "number";
}

/** The attributes of a signpost list: a list of jumps that is kept up to date by itself. */
export interface SignpostList {
  id: string;
  of: "contents" | "questions" | "figures" | "tables" | "anchors";
  /** From where its entries are drawn: the book, its own chapter, or the section that `section` names. */
  scope: "book" | "chapter" | "section";
  section: string | null;
  /** Contents: how many levels deep, from 1. Questions: the level of their headings, from 1 to 4. */
  depth: number;
  /** The anchors that were chosen for it. */
  anchors: string[];
  /** The words above it; they are its name as a landing place. */
  heading: string;
  /** The words of the return link after each section that it lists; null for none. */
  returnWords: string | null;
}

/** The attributes of a picture. `file` is the id of a stored file; null while none has been brought. */
export interface PictureAttrs {
  file: string | null;
  /** The text alternative; empty where the author has given none yet. */
  alt: string;
  /** A decorative picture says nothing and needs no text alternative. */
  decorative: boolean;
  /** The name by which the manuscript file called it. */
  source: string | null;
  /** How wide it is shown, in percent of the text's width; null for its own size, at most the text's. */
  width: number | null;
  /** Its areas that are links, the lowest first. */
  hotspots: Hotspot[];
}

/** The typed attributes of a link mark. */
export function linkAttrs(mark: Mark): LinkAttrs {
  return mark.attrs as LinkAttrs;
}

/** The typed attributes of a picture node. */
export function pictureAttrs(node: Node): PictureAttrs {
  return node.attrs as PictureAttrs;
}

/** The typed attributes of a caption. */
export function captionAttrs(node: Node): { id: string; of: "figure" | "table" } {
  return node.attrs as { id: string; of: "figure" | "table" };
}

/** The typed attributes of a cross-reference. */
export function referenceAttrs(node: Node): CrossReference {
  return node.attrs as CrossReference;
}

/** The typed attributes of a signpost list. */
export function signpostAttrs(node: Node): SignpostList {
  return node.attrs as SignpostList;
}

/**
 * The words that stand for a picture: its text alternative, or for one that was never brought along
 * and has none, the name of its file.
 */
export function pictureWords({ file, alt, source }: Pick<PictureAttrs, "file" | "alt" | "source">): string {
  if (alt !== "" || file !== null) return alt;
  return (
    source
      ?.replace(/[?#].*$/s, "")
      .split("/")
      .filter(Boolean)
      .at(-1) ?? "picture"
  );
}
