import { placesOf } from "../manuscript/outline.ts";
import type { ChapterRule } from "./finding.ts";

/** An anchor to which no link, cross-reference or list leads. */
export const anchorUnused: ChapterRule = {
  id: "anchor-unused",
  title: "Nothing leads to an anchor",
  severity: "consider",
  source: "common practice: the author wants to know which landing places nothing points to",
  findInChapter: (doc, links, { ledTo, index, keepsAnchors = false }) => {
    if (keepsAnchors) return [];
    const anchors = placesOf(doc).filter(({ id, kind }) => kind === "anchor" && !ledTo.has(id));
    if (anchors.length === 0) return [];
    const here = new Set(
      links.flatMap(({ destination }) => (destination.kind === "place" ? [destination.target] : [])),
    );
    const listed = new Set(index.lists.flatMap(({ list }) => list?.anchors ?? []));
    return anchors.flatMap(({ id, text }) =>
      !here.has(id) && !listed.has(id)
        ? [{ subject: id, message: `Nothing leads to the anchor “${text}”. Link to it, or take it out.` }]
        : [],
    );
  },
};
