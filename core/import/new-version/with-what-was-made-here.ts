import type { Node } from "prosemirror-model";
import { Transform } from "prosemirror-transform";
import { linkUses } from "../../manuscript/links.ts";
import { linkMark, schema } from "../../manuscript/schema.ts";
import { textblocksOf } from "./align.ts";

/** What stands for a thing in the text, so that places in it are counted as the document counts them. */
const sign = "\ufffc";
/** So many letters around a thing tell where it stands. */
const around = 24;

/**
 * Blocks of a new version with what was put here into those that they have become: links on the same words, anchors
 * before the same words, notes, cross-references and pictures behind the same words. Links that were taken off here
 * stay off.
 * @param base the blocks as they were brought in, whose words those here have
 */
export function withWhatWasMadeHere(
  elsewhere: readonly Node[],
  here: readonly Node[],
  base: readonly Node[],
): Node[] {
  const change = new Transform(schema.nodes.doc!.create(null, elsewhere));
  const docOf = (blocks: readonly Node[]): Node => schema.nodes.doc!.create(null, blocks);
  const [mine, before] = [docOf(here), docOf(base)];
  const known = new Set(linkUses(before).map(({ id }) => id));
  const still = new Set(linkUses(mine).map(({ id }) => id));
  for (const use of linkUses(change.doc))
    if (known.has(use.id) && !still.has(use.id))
      for (const { from, to } of use.parts) change.removeMark(from, to, schema.marks.link!);
  for (const use of linkUses(mine)) {
    if (known.has(use.id) || use.on !== "words") continue;
    const earlier = occurrences(mine, use.text).filter((at) => at < use.from).length;
    const found = occurrences(change.doc, use.text);
    const from = found[earlier] ?? found[0];
    if (from === undefined) continue;
    const to = from + use.text.length;
    if (!change.doc.rangeHasMark(from, to, schema.marks.link!)) change.addMark(from, to, linkMark(use));
  }
  putThings(change, mine, before);
  return [...change.doc.children];
}

/** Puts in what stands in the words here, as an anchor or a sign of a note, and did not in those that were brought. */
function putThings(change: Transform, mine: Node, before: Node): void {
  const known = new Set(thingsIn(before).map(({ key }) => key));
  for (const { key, node, after, ahead } of thingsIn(mine)) {
    if (known.has(key) || thingsIn(change.doc).some((one) => one.key === key)) continue;
    const isAhead = node.type === schema.nodes.anchor;
    const [at] = occurrences(change.doc, isAhead ? after : ahead);
    const place = at ?? edgeOf(change.doc, isAhead);
    if (place === null) continue;
    change.insert(at === undefined || isAhead ? place : place + ahead.length, node);
  }
}

/** Where a thing stands whose words are gone: at the beginning of the first block of words, or at its end. */
function edgeOf(doc: Node, isAhead: boolean): number | null {
  let place: number | null = null;
  doc.descendants((node, position) => {
    if (place === null && node.isTextblock) place = position + 1 + (isAhead ? 0 : node.content.size);
    return place === null;
  });
  return place;
}

interface Thing {
  key: string;
  node: Node;
  /** The letters behind it, and those before it, in its block. */
  after: string;
  ahead: string;
}

function thingsIn(doc: Node): Thing[] {
  return textblocksOf(doc).flatMap((block) => {
    const text = textOf(block);
    const things: Thing[] = [];
    block.forEach((node, offset) => {
      if (node.isText || node.type === schema.nodes.hard_break) return;
      const id = (node.attrs["id"] ?? node.attrs["note"] ?? node.attrs["file"]) as string | null;
      const [ahead = ""] = /[^\ufffc]*$/.exec(text.slice(Math.max(0, offset - around), offset)) ?? [];
      const [after = ""] = /^[^\ufffc]*/.exec(text.slice(offset + 1, offset + 1 + around)) ?? [];
      things.push({ key: `${node.type.name} ${id ?? ""}`, node, after, ahead });
    });
    return things;
  });
}

function textOf(block: Node): string {
  return block.textBetween(0, block.content.size, sign, sign);
}

/** Where words begin in a document, each time that they stand in it; nowhere for none. */
function occurrences(doc: Node, words: string): number[] {
  const found: number[] = [];
  if (words === "") return found;
  doc.descendants((block, position) => {
    if (!block.isTextblock) return true;
    const text = textOf(block);
    for (let at = text.indexOf(words); at !== -1; at = text.indexOf(words, at + words.length))
      found.push(position + 1 + at);
    return false;
  });
  return found;
}
