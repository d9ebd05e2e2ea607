import { Fragment, type Node } from "prosemirror-model";
import { schema } from "../../manuscript/schema.ts";
import type { FilePlaces } from "./file-places.ts";

/** Blocks that are places themselves, blocks that can begin with an anchor, and those between what precedes and follows. */
const ownPlaces = new Set(["title", "heading", "caption", "signposts"]);
const words = new Set(["paragraph", "definition_term", "credit"]);
const breaks = new Set(["section_break", "page_break"]);

/** Blocks with the anchors at their end, behind which something may follow yet. */
export interface Joined {
  blocks: Node[];
  open: Node[];
}

/**
 * Anchors that stand between blocks, as generated pages have them by the hundred, begin what follows them: each would be an
 * empty line of the book, and before a heading often on the page before. Those that a book itself had there stay.
 */
export class IdleAnchors {
  /**
   * @param isOwn whether an anchor is one of a book that was exported
   * @param stays paragraphs of anchors behind which nothing follows, as at the end of a page
   */
  constructor(
    private readonly places: FilePlaces,
    private readonly isOwn: (anchor: Node) => boolean,
    private readonly stays: ReadonlySet<Node>,
  ) {}

  /** The anchors of a paragraph in which nothing else stands; none for any other block. */
  private idle(block: Node): readonly Node[] {
    if (block.type.name !== "paragraph" || this.stays.has(block)) return [];
    const anchors = block.children.filter(({ type }) => type.name === "anchor");
    const isIdle = block.children.every((node) =>
      node.isText ? node.text!.trim() === "" : node.type.name === "anchor" && !this.isOwn(node),
    );
    return isIdle ? anchors : [];
  }

  /** Blocks in which anchors are where they lead to. */
  joined(blocks: readonly Node[]): Joined {
    const out: Node[] = [];
    let waiting: Node[] = [];
    for (const block of blocks) {
      const anchors = this.idle(block);
      waiting.push(...anchors);
      if (anchors.length > 0) continue;
      const inside = this.inside(block);
      if (waiting.length > 0 && !breaks.has(block.type.name)) {
        const begun = this.begun(inside.block, waiting);
        out.push(...(begun ? [begun] : [paragraphOf(waiting), inside.block]));
        waiting = [];
      } else out.push(inside.block);
      waiting.push(...inside.open);
    }
    return { blocks: out, open: waiting };
  }

  /** Blocks behind which nothing follows. */
  joinedToTheEnd(blocks: readonly Node[]): Node[] {
    const { blocks: all, open } = this.joined(blocks);
    return open.length > 0 ? [...all, paragraphOf(open)] : all;
  }

  private inside(block: Node): { block: Node; open: readonly Node[] } {
    if (block.isTextblock || block.childCount === 0) return { block, open: [] };
    const { blocks, open } = this.joined(block.children);
    // An item or a cell in which nothing else stands keeps them.
    return blocks.length > 0
      ? { block: block.copy(Fragment.from(blocks)), open }
      : { block: block.copy(Fragment.from([paragraphOf(open)])), open: [] };
  }

  /** A block that anchors lead to; null for one that can neither hold them nor is a place itself. */
  begun(block: Node, anchors: readonly Node[]): Node | null {
    const { name } = block.type;
    if (ownPlaces.has(name)) {
      for (const anchor of anchors)
        this.places.lead(anchor.attrs["id"] as string, block.attrs["id"] as string);
      return block;
    }
    if (words.has(name)) {
      // A formula that has its lines to itself would share them.
      const isFormula = block.childCount === 1 && block.firstChild!.attrs["display"] === true;
      return isFormula ? null : block.copy(Fragment.from([...anchors, ...block.children]));
    }
    const first = block.firstChild;
    if (!first || block.isTextblock) return null;
    const begun = this.begun(first, anchors);
    return begun && block.copy(block.content.replaceChild(0, begun));
  }
}

const paragraphOf = (anchors: readonly Node[]): Node => schema.node("paragraph", null, anchors);
