import { Fragment, type Node } from "prosemirror-model";
import { pictureAttrs } from "./attributes.ts";
import { blanksOf, blanksOfPart, changesMark, type LinkChange } from "./edit-links.ts";
import { linkUses, type LinkUse } from "./links.ts";
import { reworded, withOuterBlanks, withoutWords } from "./reword.ts";
import { linkMark, schema } from "./schema.ts";

/** What is to become of a link: a change, its removal, or nothing. */
export type LinkEffect = LinkChange | "remove" | null;

type EditOfNode = (node: Node) => Node | null;
/** What becomes of all that a link covers in one paragraph, up to the position where it ends. */
interface EditOfPart {
  to: number;
  edit: (nodes: readonly Node[]) => readonly Node[];
}

/**
 * Changes many links of a document in one walk over it; each becomes what `changeLink` and `unlink` make of it, which
 * take a walk for every link.
 * @param effectOn what is to become of a link, and of the how many-th it is, from 0
 * @returns the document as it is then, itself where no link changed, and how many did
 */
export function changeLinks(
  doc: Node,
  effectOn: (use: LinkUse, ordinal: number) => LinkEffect,
): { doc: Node; count: number } {
  const edits = new Edits();
  let count = 0;
  for (const [ordinal, use] of linkUses(doc).entries()) {
    const effect = effectOn(use, ordinal);
    if (effect === null) continue;
    count++;
    edits.add(use, effect, doc);
  }
  return count === 0 ? { doc, count } : { doc: edits.inBlock(doc, 0), count };
}

/** Edits by the position of what they change, and the walk that makes them. */
class Edits {
  private readonly parts = new Map<number, EditOfPart>();
  private readonly nodes = new Map<number, EditOfNode[]>();

  add(use: LinkUse, effect: Exclude<LinkEffect, null>, doc: Node): void {
    if (use.on === "hotspot") return this.onNode(use.from, (node) => withHotspot(node, use.id, effect));
    if (use.on === "reference") return this.onNode(use.from, (node) => withTarget(node, effect));
    const text = effect === "remove" || effect.text === use.text ? undefined : effect.text;
    const mark = effect === "remove" ? null : markOf(use, effect);
    const blanks = effect !== "remove" && effect.trim ? blanksOf(doc, use) : null;
    for (const [i, { from, to }] of use.parts.entries()) {
      this.parts.set(from, {
        to,
        edit: (nodes) => {
          const marked = mark === undefined ? nodes : nodes.map((node) => withMark(node, mark));
          if (blanks) return withOuterBlanks(marked, blanksOfPart(blanks, i, use.parts.length));
          if (text === undefined) return marked;
          const [first] = marked;
          if (use.on === "picture") return [withAttributes(first!, { alt: text })];
          // All the words stand where the link began.
          return i === 0 ? reworded(marked, text) : withoutWords(marked);
        },
      });
    }
  }

  /** @param start the position of the block's first character */
  inBlock(block: Node, start: number): Node {
    if (block.isTextblock) return this.inWords(block, start);
    const children: Node[] = [];
    let isChanged = false;
    block.forEach((child, offset) => {
      const next = child.isLeaf ? child : this.inBlock(child, start + offset + 1);
      isChanged ||= next !== child;
      children.push(next);
    });
    return isChanged ? block.copy(Fragment.fromArray(children)) : block;
  }

  private inWords(block: Node, start: number): Node {
    const children: Node[] = [];
    let part: (EditOfPart & { nodes: Node[] }) | null = null;
    let isChanged = false;
    block.forEach((child, offset) => {
      const position = start + offset;
      const begun = this.parts.get(position);
      if (begun) part = { ...begun, nodes: [] };
      const onNode = this.nodes.get(position);
      isChanged ||= begun !== undefined || onNode !== undefined;
      const next = onNode ? onNode.reduce<Node | null>((node, edit) => node && edit(node), child) : child;
      if (next) (part?.nodes ?? children).push(next);
      if (part?.to === position + child.nodeSize) {
        children.push(...part.edit(part.nodes));
        part = null;
      }
    });
    return isChanged ? block.copy(Fragment.fromArray(children)) : block;
  }

  private onNode(position: number, edit: EditOfNode): void {
    const there = this.nodes.get(position);
    if (there) there.push(edit);
    else this.nodes.set(position, [edit]);
  }
}

/** The mark that a link has then; undefined where it keeps the one that it has. */
function markOf(use: LinkUse, change: LinkChange): ReturnType<typeof schema.mark> | undefined {
  if (!changesMark(change)) return undefined;
  return linkMark({ ...use, ...change });
}

function withMark(node: Node, mark: ReturnType<typeof schema.mark> | null): Node {
  return node.mark(mark === null ? schema.marks.link!.removeFromSet(node.marks) : mark.addToSet(node.marks));
}

function withHotspot(picture: Node, id: string, effect: Exclude<LinkEffect, null>): Node {
  const { hotspots } = pictureAttrs(picture);
  return withAttributes(picture, {
    hotspots: hotspots.flatMap((hotspot) => {
      if (hotspot.id !== id) return [hotspot];
      if (effect === "remove") return [];
      const { text, destination, description } = effect;
      return [
        {
          ...hotspot,
          ...(destination === undefined ? {} : { destination }),
          ...(description === undefined ? {} : { description }),
          ...(text === undefined ? {} : { alt: text }),
        },
      ];
    }),
  });
}

function withTarget(reference: Node, effect: Exclude<LinkEffect, null>): Node | null {
  if (effect === "remove") return null;
  return effect.destination?.kind === "place"
    ? withAttributes(reference, { target: effect.destination.target })
    : reference;
}

function withAttributes(node: Node, attributes: Record<string, unknown>): Node {
  return node.type.create({ ...node.attrs, ...attributes }, node.content, node.marks);
}
