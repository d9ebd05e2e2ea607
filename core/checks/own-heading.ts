import type { Node } from "prosemirror-model";
import type { ChapterRule } from "./finding.ts";
import { textBetween } from "../manuscript/positions.ts";

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
    // Links come in the order of the text.
    let next = 0;
    let above: Heading | undefined;
    return links.flatMap(({ id, destination, from }) => {
      if (destination.kind !== "place") return [];
      while (next < headings.length && headings[next]!.end <= from) above = headings[next++];
      return above?.id === destination.target && isOnScreen(doc, above.end, from)
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

/** Whether no more than a screen of text stands between; what takes up room without any counts as well. */
function isOnScreen(doc: Node, from: number, to: number): boolean {
  return to - from < 4 * aScreen && textBetween(doc, from, to, "").length < aScreen;
}

interface Heading {
  id: string;
  words: string;
  end: number;
}

function headingsOf(doc: Node): Heading[] {
  const found: Heading[] = [];
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
