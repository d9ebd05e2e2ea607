import type { Node } from "prosemirror-model";

/** How many rows at the top of a table hold nothing but header cells. */
export function countHeadRows(table: Node): number {
  const first = table.children.findIndex((row) =>
    row.children.some((cell) => cell.type.name !== "table_header"),
  );
  return first === -1 ? table.childCount : first;
}
