import { Fragment, type Node } from "prosemirror-model";
import { Transform } from "prosemirror-transform";
import { sameDestination } from "../../destination/destination.ts";
import { linkAttrs } from "../../manuscript/attributes.ts";
import { giveOwnIds } from "../../manuscript/edit-links.ts";
import { blockEdits, isBefore, meet, type BlockEdit } from "../../manuscript/merge-texts.ts";
import { linkMark, schema } from "../../manuscript/schema.ts";
import { align, blockWords } from "./align.ts";
import { withWhatWasMadeHere } from "./with-what-was-made-here.ts";

/** A stretch of a chapter that was changed both in Vennet and elsewhere, each otherwise. */
export interface Clash {
  here: string;
  elsewhere: string;
}

/** Which of two texts is taken. */
export type Side = "here" | "elsewhere";

/** A chapter in which a new version has been taken in. */
export interface MergedVersion {
  doc: Node;
  clashes: Clash[];
}

/**
 * Takes a new version of a chapter in: what was changed elsewhere is taken, what was changed here stays, and what of a
 * link only Vennet knows (its description, its look) stays on the link also where its paragraph was changed elsewhere.
 * @param base the text as it was brought in last
 * @param here the text as it is now
 * @param elsewhere the new version, with the ids of the base
 * @param choose which text is taken where both changed the same stretch, by its number
 */
export function mergeVersion(
  base: Node,
  here: Node,
  elsewhere: Node,
  choose: (clash: number) => Side,
): MergedVersion {
  const editsOf = (after: Node): BlockEdit[] =>
    blockEdits(base, after).flatMap((edit) => inParts(base, edit));
  const [own, others] = [editsOf(here), editsOf(elsewhere)];
  const clashes: Clash[] = [];
  const merged: Node[] = [];
  let at = 0;
  const take = ({ from, to }: Pick<BlockEdit, "from" | "to">, blocks: readonly Node[]): void => {
    merged.push(...base.children.slice(at, from), ...blocks);
    at = to;
  };
  while (own.length > 0 || others.length > 0) {
    const [a, b] = [own[0], others[0]];
    if (!a || !b || !meet(a, b)) {
      const edit = (!b || (a && isBefore(a, b)) ? own : others).shift()!;
      take(edit, edit.blocks);
      continue;
    }
    // All edits of both that hang together are one stretch.
    const stretch = { from: Math.min(a.from, b.from), to: Math.max(a.to, b.to) };
    const mine: BlockEdit[] = [];
    const theirs: BlockEdit[] = [];
    for (let grown = true; grown;) {
      grown = false;
      for (const [waiting, taken] of [
        [own, mine],
        [others, theirs],
      ] as const)
        while (waiting[0] && meet(waiting[0], stretch)) {
          taken.push(waiting.shift()!);
          stretch.from = Math.min(stretch.from, taken.at(-1)!.from);
          stretch.to = Math.max(stretch.to, taken.at(-1)!.to);
          grown = true;
        }
    }
    const before = base.children.slice(stretch.from, stretch.to);
    const hereBlocks = applied(base, stretch, mine);
    const otherBlocks = applied(base, stretch, theirs);
    const together = both(before, hereBlocks, otherBlocks);
    if (together) take(stretch, together);
    else {
      const side = choose(clashes.length);
      clashes.push({ here: textOf(hereBlocks), elsewhere: textOf(otherBlocks) });
      take(stretch, side === "here" ? hereBlocks : otherBlocks);
    }
  }
  merged.push(...base.children.slice(at));
  return { doc: sound(merged), clashes };
}

/** An edit of several blocks as one for each block that has become another, and those for what came and went between. */
function inParts(base: Node, { from, to, blocks }: BlockEdit): BlockEdit[] {
  const known = base.children.slice(from, to);
  const keyOf = (block: Node): string => `${block.type.name} ${blockWords(block)}`;
  const parts: BlockEdit[] = [];
  let [a, b] = [0, 0];
  const until = (nextA: number, nextB: number): void => {
    if (nextA > a || nextB > b)
      parts.push({ from: from + a, to: from + nextA, blocks: blocks.slice(b, nextB) });
  };
  for (const [one, other] of align(known, blocks, keyOf, blockWords)) {
    const [atA, atB] = [known.indexOf(one, a), blocks.indexOf(other, b)];
    until(atA, atB);
    if (!one.eq(other)) parts.push({ from: from + atA, to: from + atA + 1, blocks: [other] });
    [a, b] = [atA + 1, atB + 1];
  }
  until(known.length, blocks.length);
  return parts;
}

/** A stretch of the base with some edits of one side in it. */
function applied(
  base: Node,
  { from, to }: { from: number; to: number },
  edits: readonly BlockEdit[],
): Node[] {
  const out: Node[] = [];
  let at = from;
  for (const edit of edits) {
    out.push(...base.children.slice(at, edit.from), ...edit.blocks);
    at = edit.to;
  }
  return [...out, ...base.children.slice(at, to)];
}

/** Blocks that two sides made of the same ones, put together; null where each changed the words otherwise. */
function both(base: readonly Node[], here: readonly Node[], elsewhere: readonly Node[]): Node[] | null {
  const isSame = (a: readonly Node[], b: readonly Node[]): boolean =>
    a.length === b.length && a.every((block, i) => block.eq(b[i]!));
  if (isSame(here, elsewhere)) return [...here];
  if (base.length === 0) return [...elsewhere, ...here];
  const wordsOf = (blocks: readonly Node[]): string =>
    blocks.map(({ textContent }) => textContent).join("\n");
  // Here the words are as they came: links and what stands between words was changed, or how words are shown.
  if (wordsOf(base) === wordsOf(here)) {
    const linked = elsewhere.map((block) => withLinksOf(block, here, base));
    return withWhatWasMadeHere(linked, here, base);
  }
  if (wordsOf(base) === wordsOf(elsewhere)) return [...here];
  return null;
}

/** A block whose links have what they were given here, and lead where the new version leads them if it changed that. */
function withLinksOf(block: Node, here: readonly Node[], base: readonly Node[]): Node {
  const [given, before] = [linksById(here), linksById(base)];
  const visit = (node: Node): Node => {
    const mark = schema.marks.link!.isInSet(node.marks);
    const own = mark && given.get(mark.attrs["id"] as string);
    const inside = node.isLeaf ? node : node.copy(Fragment.from(node.children.map(visit)));
    if (!mark || !own) return inside;
    const now = linkAttrs(mark);
    const was = before.get(now.id);
    const isLedElsewhere = was !== undefined && !sameDestination(was.destination, now.destination);
    return inside.mark(
      linkMark(isLedElsewhere ? { ...own, destination: now.destination } : own).addToSet(inside.marks),
    );
  };
  return visit(block);
}

function linksById(blocks: readonly Node[]): Map<string, ReturnType<typeof linkAttrs>> {
  const found = new Map<string, ReturnType<typeof linkAttrs>>();
  for (const block of blocks)
    block.descendants(({ marks }) => {
      const mark = schema.marks.link!.isInSet(marks);
      if (mark) found.set(mark.attrs["id"] as string, linkAttrs(mark));
    });
  return found;
}

function textOf(blocks: readonly Node[]): string {
  return blocks.map(blockWords).join("\n\n");
}

/** A document of the blocks in the order that the schema wants, with an id of its own for everything. */
function sound(blocks: readonly Node[]): Node {
  const isNote = ({ type }: Node): boolean => type === schema.nodes.note;
  const titles = blocks.filter(({ type }) => type === schema.nodes.title);
  const rest = blocks.filter(({ type }) => type !== schema.nodes.title);
  const ordered = [titles[0]!, ...rest.filter((one) => !isNote(one)), ...rest.filter(isNote)];
  const change = new Transform(schema.nodes.doc!.create(null, ordered));
  giveOwnIds(change);
  change.doc.check();
  return change.doc;
}
