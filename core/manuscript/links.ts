import type { Node } from "prosemirror-model";
import { linkOn, pictureAttrs, pictureWords, type LinkAttrs } from "./schema.ts";

/** Neighbouring inline nodes of one block that belong to the same link, or to none. */
export interface InlineRun {
  link: LinkAttrs | null;
  nodes: Node[];
  /** Position of the run's first character, counted from the start of the block's content. */
  offset: number;
}

/** One link of a chapter, with the words it covers and where they stand. */
export interface LinkUse extends LinkAttrs {
  /** The link text: the words, and the text alternatives of pictures, in order. */
  text: string;
  /** Document positions of its first and behind its last character. */
  from: number;
  to: number;
}

/**
 * Divides a block's inline content into links and what stands between them. Runs with the same link
 * id are one link, whatever other marks divide them.
 */
export function inlineRuns(block: Node): InlineRun[] {
  const runs: InlineRun[] = [];
  block.forEach((inline, offset) => {
    const link = linkOn(inline);
    const last = runs.at(-1);
    if (last && last.link?.id === link?.id) last.nodes.push(inline);
    else runs.push({ link, nodes: [inline], offset });
  });
  return runs;
}

/** Every link of a chapter in the order of the document. A link ends with its paragraph. */
export function linkUses(doc: Node): LinkUse[] {
  const uses: LinkUse[] = [];
  doc.descendants((block, blockPos) => {
    if (!block.isTextblock) return true;
    for (const run of inlineRuns(block)) {
      if (!run.link) continue;
      const from = blockPos + 1 + run.offset;
      const size = run.nodes.reduce((sum, node) => sum + node.nodeSize, 0);
      uses.push({ ...run.link, text: run.nodes.map(inlineText).join(""), from, to: from + size });
    }
    return false;
  });
  return uses;
}

function inlineText(inline: Node): string {
  if (inline.isText) return inline.text!;
  if (inline.type.name === "picture") return pictureWords(pictureAttrs(inline));
  if (inline.type.name === "hard_break") return " ";
  return "";
}
