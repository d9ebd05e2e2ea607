import type { Node } from "prosemirror-model";

/** How many rows at the top of a table hold nothing but header cells, none of which reaches down among the others. */
export function countHeadRows(table: Node): number {
  const first = table.children.findIndex((row) =>
    row.children.some((cell) => cell.type.name !== "table_header"),
  );
  if (first === -1) return table.childCount;
  const reaching = table.children
    .slice(0, first)
    .findIndex((row, at) => row.children.some((cell) => at + (cell.attrs["rowspan"] as number) > first));
  return reaching === -1 ? first : reaching;
}

/** How many columns and rows a cell takes. */
export interface Spans {
  colspan: number;
  rowspan: number;
}

/** How the cells of a table lie. */
export interface TableGrid {
  columns: number;
  /** How many columns are free at the end of each row. */
  free: number[];
  /** What each cell takes, by rows. */
  spans: Spans[][];
  /** The column in which each cell begins, by rows. */
  starts: number[][];
}

/**
 * How cells of rows lie in a table, as HTML has it (WHATWG HTML, 4.9.12.1): each in the first columns that are free. No cell
 * reaches over one from above or below the last row; a row may end before the table does.
 */
export function gridOf(rows: readonly (readonly Spans[])[]): TableGrid {
  /** For each column in how many rows from now on a cell stands that has begun. */
  const taken: number[] = [];
  const isTaken = (column: number): boolean => (taken[column] ?? 0) > 0;
  const used: number[] = [];
  const starts: number[][] = [];
  const spans = rows.map((row, at) => {
    let column = 0;
    const begun: number[] = [];
    const own = row.map(({ colspan, rowspan }): Spans => {
      while (isTaken(column)) column++;
      const first = column;
      begun.push(first);
      const down = Math.min(rowspan, rows.length - at);
      while (column < first + colspan && !isTaken(column)) taken[column++] = down;
      return { colspan: column - first, rowspan: down };
    });
    starts.push(begun);
    used.push(taken.filter((left) => left > 0).length);
    for (const [i, left] of taken.entries()) taken[i] = Math.max(0, left - 1);
    return own;
  });
  const columns = Math.max(1, taken.length);
  return { columns, free: used.map((count) => columns - count), spans, starts };
}
