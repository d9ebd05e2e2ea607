import type { Node } from "prosemirror-model";
import type { ChapterRule } from "./finding.ts";

/** So many characters are about a screen of text: who is further down does see something move. */
const aScreen = 1500;

/** A link to the heading under which it stands, so that nothing moves when it is pressed. */
export const ownHeading: ChapterRule = {
  id: "own-heading",
  title: "A link leads to where it stands",
  severity: "consider",
  source: "common practice: a jump within the same screen is taken for a link that failed",
  findInChapter: (doc, links, { keepsAnchors = false }) => {
    // Of a page that stays as it is only the links are known, and not how far they stand from its top.
    if (keepsAnchors) return [];
    if (!links.some(({ destination }) => destination.kind === "place")) return [];
    const headings = headingsOf(doc);
    return links.flatMap(({ id, destination, from }) => {
      if (destination.kind !== "place") return [];
      const above = headings.findLast(({ end }) => end <= from);
      return above?.id === destination.target && doc.textBetween(above.end, from, "").length < aScreen
        ? [
            {
              subject: id,
              message: `This leads to “${above.words}”, under which it stands, so nothing moves for a reader. Lead elsewhere, or take the link out.`,
            },
          ]
        : [];
    });
  },
};

function headingsOf(doc: Node): { id: string; words: string; end: number }[] {
  const found: { id: string; words: string; end: number }[] = [];
  doc.descendants((node, position) => {
    if (node.type.name === "heading" || node.type.name === "title")
      found.push({
        id: node.attrs["id"] as string,
        words: node.textContent.trim(),
        end: position + node.nodeSize,
      });
    return !node.isTextblock;
  });
  return found;
}
