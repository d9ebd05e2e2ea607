import type { Node } from "prosemirror-model";
import { schema } from "./schema.ts";

/** What makes a chapter's document out of an earlier one: blocks that stand where some of its own stood. */
export interface ChangedBlocks {
  /** The index of the first block that another stands for. */
  from: number;
  /** How many blocks they stand for. */
  count: number;
  /** ProseMirror's JSON of each. */
  blocks: unknown[];
}

/** What has changed from a document to a later one. Blocks that an edit leaves alone are the same objects in both. */
export function changedBlocks(before: Node, after: Node): ChangedBlocks {
  const [old, now] = [before.children, after.children];
  const shorter = Math.min(old.length, now.length);
  let from = 0;
  while (from < shorter && old[from] === now[from]) from++;
  let behind = 0;
  while (behind < shorter - from && old.at(-1 - behind) === now.at(-1 - behind)) behind++;
  return {
    from,
    count: old.length - from - behind,
    blocks: now.slice(from, now.length - behind).map((block) => block.toJSON() as unknown),
  };
}

/**
 * A document with what has changed since. All other blocks are the same objects as before, so that what is remembered of
 * them holds.
 * @throws RangeError where a block does not fit the schema, which none of an editor's does
 */
export function withChangedBlocks(before: Node, { from, count, blocks }: ChangedBlocks): Node {
  const read = blocks.map((json) => schema.nodeFromJSON(json));
  for (const block of read) block.check();
  const all = before.children;
  return before.type.create(before.attrs, [...all.slice(0, from), ...read, ...all.slice(from + count)]);
}
