import type { KnownDestination } from "@vennet/core/destination/suggest";
import type { BookIndex, IndexedPlace } from "@vennet/core/manuscript/book-index";
import type { PlaceKind } from "@vennet/core/manuscript/outline";

/** What the kinds of places are called. */
export const kindWords: Record<PlaceKind, string> = {
  title: "Chapter",
  heading: "Heading",
  anchor: "Anchor",
  note: "Note",
  figure: "Figure",
  table: "Table",
  signposts: "Signpost list",
};

/** A place as it is offered where the author looks for one; `here` is the index of the open chapter. */
export function knownPlace(place: IndexedPlace, index: BookIndex, here: number): KnownDestination {
  const { id, kind, chapter, text, context, words } = place;
  const label = index.labelOf(place);
  const isTop = chapter === -1;
  const home = index.titles.get(chapter)?.text ?? "";
  const where = chapter === here ? "in this chapter" : `in ${home}`;
  const number = label === null || kind === "figure" || kind === "table" ? "" : ` ${label}`;
  return {
    destination: { kind: "place", target: id },
    name: (kind === "anchor" ? text : words) || kindWords[kind],
    detail: isTop
      ? "Top of the book"
      : kind === "title"
        ? index.companions.has(chapter)
          ? "Companion page"
          : `Chapter${number}`
        : `${(kind === "figure" || kind === "table") && label ? label : kindWords[kind] + number} ${where}${context ? `: ${context}` : ""}`,
    uses: 0,
  };
}
