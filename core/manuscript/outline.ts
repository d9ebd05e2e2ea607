import type { Node } from "prosemirror-model";

/** A landing place that a link can lead to. */
export interface Place {
  id: string;
  kind: "title" | "heading" | "anchor";
  /** 0 for the chapter's title, 1 to 4 for headings, null for an anchor. */
  level: number | null;
  text: string;
}

/** The landing places of a chapter, in reading order. */
export function placesOf(doc: Node): Place[] {
  const places: Place[] = [];
  doc.descendants((node) => {
    const id = node.attrs["id"] as string;
    if (node.type.name === "title")
      places.push({ id, kind: "title", level: 0, text: node.textContent.trim() });
    if (node.type.name === "heading") {
      places.push({
        id,
        kind: "heading",
        level: node.attrs["level"] as number,
        text: node.textContent.trim(),
      });
    }
    if (node.type.name === "anchor")
      places.push({ id, kind: "anchor", level: null, text: node.attrs["name"] as string });
  });
  return places;
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
