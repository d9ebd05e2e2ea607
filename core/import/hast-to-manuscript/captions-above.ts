import { Fragment, type Node } from "prosemirror-model";

/**
 * Blocks in which a table's caption stands where a manuscript takes it for that table's: above it, but below where another
 * table comes right before, whose it would be.
 * @param above the ids of captions that stand right above their tables
 */
export function withCaptionsOfTheirTables(blocks: readonly Node[], above: ReadonlySet<string>): Node[] {
  if (above.size === 0) return [...blocks];
  const out: Node[] = [];
  for (const block of blocks) {
    const isWhole = block.isTextblock || block.isLeaf;
    out.push(isWhole ? block : block.copy(Fragment.from(withCaptionsOfTheirTables(block.children, above))));
    const [before, caption, table] = [out.at(-3), out.at(-2), out.at(-1)!];
    if (before?.type.name !== "table" || caption?.type.name !== "caption" || table.type.name !== "table")
      continue;
    if (above.has(caption.attrs["id"] as string)) out.splice(-2, 2, table, caption);
  }
  return out;
}
