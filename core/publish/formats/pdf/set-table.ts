import type { Node } from "prosemirror-model";
import { countHeadRows, gridOf, type Spans } from "../../../manuscript/tables.ts";
import { linesInCells } from "./column-widths.ts";
import { leadsSomewhere } from "./leads-somewhere.ts";
import type { SetBlock, SetCell } from "./set-data.ts";

/** A row stays whole that fills less than about half a page: so many letters in its longest cell, were it as wide as the table. */
const mostLetters = 1_200;

/**
 * A table as the typesetter takes it, where every row has all columns.
 * @param line how wide it may be, in sizes of the text's letters
 * @param contentOf what stands in a cell whose lines are so wide
 */
export function setTable(
  table: Node,
  line: number,
  contentOf: (cell: Node, line: number) => SetBlock[],
): SetBlock {
  const headRows = countHeadRows(table);
  const grid = gridOf(table.children.map((row) => row.children.map(({ attrs }) => attrs as Spans)));
  const { columns, free, spans } = grid;
  const lines = linesInCells(table, grid, line);
  const rows = table.children.map((row, at): SetCell[] => {
    const breaks = !staysWhole(row, columns);
    const cells = row.children.map((cell, i) => ({
      ...spans[at]![i]!,
      align: cell.attrs["align"] as string | null,
      head: cell.type.name === "table_header",
      breaks,
      content: contentOf(cell, lines[at]![i]!),
    }));
    // The typesetter puts a cell wherever there is room, and so the next row's at the end of a short one.
    const filling = { colspan: 1, rowspan: 1, align: null, head: at < headRows, breaks, content: [] };
    return [...cells, ...Array<SetCell>(free[at]!).fill(filling)];
  });
  return {
    kind: "table",
    columns,
    head: rows.slice(0, headRows),
    rows: rows.slice(headRows),
    repeats: !table.children.slice(0, headRows).some(leadsSomewhere),
  };
}

/**
 * Whether a row is set on one page: where notes are called in several of its cells, a mark further right could else come on
 * an earlier page than one before it, and be counted first.
 */
function staysWhole(row: Node, columns: number): boolean {
  let callsNotes = false;
  row.descendants(({ type }) => {
    callsNotes ||= type.name === "note_reference";
    return !callsNotes;
  });
  const longest = Math.max(...row.children.map(({ textContent }) => textContent.length));
  return callsNotes && longest * columns <= mostLetters;
}
