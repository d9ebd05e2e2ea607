import type { Node } from "prosemirror-model";
import type { TableGrid } from "../../../manuscript/tables.ts";
import { widthOfWords } from "./letter-widths.ts";

/** What a cell has around its content at both sides together, in sizes of the text's letters. */
const inset = 1.2;
/** Where there are more columns than have room, nothing is gained by parting words for narrower lines. */
const narrowest = 2;
/** What the lines inside a block are shorter than those around it, in the same. */
const indents: Readonly<Record<string, number>> = {
  bullet_list: 2,
  ordered_list: 2,
  definition_list: 2,
  blockquote: 2,
  code_block: 1.5,
};

/** How wide the lines inside a block are, where those around it are so wide. */
export function lineInside(block: Node, line: number): number {
  return Math.max(line - (indents[block.type.name] ?? 0), narrowest);
}

/**
 * How wide the lines in each cell of a table are, in sizes of the text's letters: about, as the typesetter deals widths out.
 * A column that takes no more than its share is as wide as its longest line.
 * @param line how wide the table may be
 * @returns by rows and cells; infinite where a column has room for all that is in it
 */
export function linesInCells(table: Node, { columns, spans, starts }: TableGrid, line: number): number[][] {
  const natural = Array<number>(columns).fill(0);
  for (const [at, row] of table.children.entries())
    for (const [i, cell] of row.children.entries()) {
      // One over several columns takes what they have.
      if (spans[at]![i]!.colspan > 1) continue;
      const column = starts[at]![i]!;
      natural[column] = Math.max(natural[column]!, naturalWidth(cell, line) + inset);
    }
  const widths = dealtOut(natural, line);
  return table.children.map((row, at) =>
    row.children.map((_, i) => {
      const column = starts[at]![i]!;
      const { colspan } = spans[at]![i]!;
      if (colspan === 1 && natural[column]! <= widths[column]!) return Infinity;
      const all = widths.slice(column, column + colspan).reduce((sum, width) => sum + width, 0);
      return Math.max(all - inset, narrowest);
    }),
  );
}

/** What each column gets: those that need less than an equal share what they need, the others equal shares of the rest. */
function dealtOut(natural: readonly number[], line: number): number[] {
  let left = line;
  let open = natural.map((_, column) => column);
  for (;;) {
    const share = left / open.length;
    const content = open.filter((column) => natural[column]! <= share);
    if (content.length === 0) return natural.map((width) => (width > share ? share : width));
    for (const column of content) left -= natural[column]!;
    open = open.filter((column) => natural[column]! > share);
  }
}

/** How wide the longest line of a block would be, if none were broken; infinite where it is wider than `most`. */
function naturalWidth(block: Node, most: number): number {
  const indent = indents[block.type.name] ?? 0;
  if (block.isTextblock) return longestLine(block, most) + indent;
  const isRow = block.type.name === "table_row";
  let width = 0;
  for (const inner of block.children) {
    const own = naturalWidth(inner, most);
    width = isRow ? width + own + inset : Math.max(width, own);
    if (width > most) return Infinity;
  }
  return width + indent;
}

function longestLine(block: Node, most: number): number {
  let longest = 0;
  let width = 0;
  for (const node of block.children) {
    if (node.type.name === "hard_break") width = 0;
    // A picture's size is the typesetter's to know.
    else if (node.type.name === "picture") return Infinity;
    else width += widthOfWords(node.isText ? node.text! : node.textContent, isCode(block, node));
    longest = Math.max(longest, width);
    if (longest > most) return Infinity;
  }
  return longest;
}

const isCode = (block: Node, node: Node): boolean =>
  block.type.name === "code_block" || node.marks.some(({ type }) => type.name === "code");
