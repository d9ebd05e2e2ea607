import type { Node } from "prosemirror-model";
import { orderNotes } from "./notes.ts";
import { captionAttrs, signpostAttrs, type SignpostList } from "./attributes.ts";
import { resolved } from "./positions.ts";

export type PlaceKind = "title" | "heading" | "anchor" | "note" | "figure" | "table" | "signposts";

/** A landing place that a link can lead to. */
export interface Place {
  id: string;
  kind: PlaceKind;
  /** 0 for the chapter's title, 1 to 4 for headings, null for all else. */
  level: number | null;
  /** An anchor's name, else its own words. */
  text: string;
  /** The words that stand there, up to about eighty characters: what tells it from others of its name. */
  context: string;
  /** Where it stands in its chapter's document. */
  position: number;
  /** A note's number within its chapter, null for all else. */
  ordinal: number | null;
  /** The note in which it stands, or which it is; null for the text. */
  note: string | null;
  /** What a signpost list lists, null for all else. */
  list: SignpostList | null;
}

const contextLength = 80;
const placesIn = new WeakMap<Node, Place[]>();

/** The landing places of a chapter, in reading order. Reckoned once for each document, which never changes. */
export function placesOf(doc: Node): readonly Place[] {
  let places = placesIn.get(doc);
  if (!places) placesIn.set(doc, (places = readPlaces(doc)));
  return places;
}

function readPlaces(doc: Node): Place[] {
  const places: Place[] = [];
  const notes = new Map(orderNotes(doc).map((id, i) => [id, i + 1]));
  // Titles and headings wait for the text that follows them.
  let waiting: Place[] = [];
  let note: string | null = null;
  doc.descendants((node, position, parent) => {
    if (node.type.name === "note") note = node.attrs["id"] as string;
    const place = (kind: PlaceKind, more: Partial<Place>): Place => {
      const id = node.attrs["id"] as string;
      const none = { level: null, text: "", context: "", ordinal: null, list: null };
      places.push({ id, kind, position, note, ...none, ...more });
      return places.at(-1)!;
    };
    const name = node.type.name;
    if (name === "title" || name === "heading") {
      const level = name === "title" ? 0 : (node.attrs["level"] as number);
      waiting.push(place(name, { level, text: node.textContent.trim() }));
    } else if (name === "caption") {
      place(captionAttrs(node).of, { text: node.textContent.trim() });
    } else if (waiting.length > 0 && node.isTextblock && node.textContent.trim() !== "") {
      const context = shorten(node.textContent);
      for (const one of waiting) one.context = context;
      waiting = [];
    }
    if (name === "anchor") {
      const { offset: from } = resolved(doc, position);
      const after = parent!.textBetween(from, parent!.content.size, "", " ");
      const context = shorten(after.trim() === "" ? parent!.textContent : after);
      place("anchor", { text: node.attrs["name"] as string, context });
    } else if (name === "note") {
      const ordinal = notes.get(node.attrs["id"] as string)!;
      place("note", { text: shorten(node.textBetween(0, node.content.size, " ", " ")), ordinal });
    } else if (name === "signposts") {
      const list = signpostAttrs(node);
      place("signposts", { text: list.heading, list });
    }
  });
  return places;
}

function shorten(text: string): string {
  // Of a long text only the beginning is looked at.
  const line = text
    .slice(0, contextLength * 5)
    .replace(/\s+/g, " ")
    .trim();
  return line.length > contextLength ? line.slice(0, contextLength - 1) + "…" : line;
}

/**
 * Gives the headings of a chapter consecutive levels, as PDF/UA-1 (ISO 14289-1, 7.4.2) wants them: no
 * heading lies more than one level below the one before it. The title is level 1.
 */
export class HeadingLevels {
  private last = 0;

  /** The level to write for a heading of the given level (0 for the title, 1 to 4), 1 to 5. */
  next(level: number): number {
    this.last = Math.min(level + 1, this.last + 1);
    return this.last;
  }
}
