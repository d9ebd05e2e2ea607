import type { Node } from "prosemirror-model";
import { captionAttrs } from "./attributes.ts";

/** One block of a text as the exports write it: a picture or table together with its caption, or a block alone. */
export interface CaptionedBlock {
  node: Node;
  caption: Node | null;
  /** A table's caption that stands before it is written before it. */
  captionFirst: boolean;
  /** Where it ends in the parent's content, its caption included. */
  end: number;
}

/**
 * The blocks of a parent, each caption with what it is about: the picture right before it, or the table
 * right before or after it. A caption about nothing stands by itself.
 */
export function captionedBlocks(parent: Node): CaptionedBlock[] {
  const out: CaptionedBlock[] = [];
  // A table's caption that is the last block so far may be about the table that comes next.
  let waiting: CaptionedBlock | null = null;
  parent.forEach((node, offset) => {
    const end = offset + node.nodeSize;
    const last = out.at(-1);
    if (waiting && node.type.name === "table") {
      Object.assign(waiting, { node, caption: waiting.node, captionFirst: true, end });
      waiting = null;
      return;
    }
    waiting = null;
    const of = node.type.name === "caption" ? captionAttrs(node).of : null;
    if (of !== null && last && last.caption === null && canHold(last.node, of)) {
      Object.assign(last, { caption: node, end });
      return;
    }
    const alone = { node, caption: null, captionFirst: false, end };
    out.push(alone);
    if (of === "table") waiting = alone;
  });
  return out;
}

function canHold(node: Node, of: "figure" | "table"): boolean {
  if (of === "table") return node.type.name === "table";
  const isPicture = (child: Node): boolean => child.type.name === "picture";
  return (
    node.type.name === "paragraph" &&
    node.children.some(isPicture) &&
    node.children.every((child) => isPicture(child) || (child.isText && child.text!.trim() === ""))
  );
}
