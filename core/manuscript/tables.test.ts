import { expect, test } from "@jest/globals";
import { schema } from "./schema.ts";
import { countHeadRows, gridOf } from "./tables.ts";

/** Cells as “columns x rows”. */
const cells = (row: string): { colspan: number; rowspan: number }[] =>
  row.split(" ").map((one) => {
    const [colspan, rowspan] = one.split("x").map(Number) as [number, number];
    return { colspan, rowspan };
  });
const shown = (rows: string[]): unknown => {
  const { columns, free, spans } = gridOf(rows.map((row) => (row === "" ? [] : cells(row))));
  return [
    columns,
    free,
    spans.map((row) => row.map(({ colspan, rowspan }) => `${colspan}x${rowspan}`).join(" ")),
  ];
};

// The examples follow the way in which HTML forms a table (WHATWG HTML, 4.9.12.1).
test.each([
  [
    ["1x1 1x1", "2x1"],
    [2, [0, 0], ["1x1 1x1", "2x1"]],
  ],
  [
    ["1x1", "4x1", "1x1 1x1"],
    [4, [3, 0, 2], ["1x1", "4x1", "1x1 1x1"]],
  ],
  [
    ["1x9 1x1", "1x1"],
    [2, [0, 0], ["1x2 1x1", "1x1"]],
  ],
  [
    ["1x1 1x3", "2x1", "1x1 1x1"],
    [3, [1, 1, 0], ["1x1 1x3", "1x1", "1x1 1x1"]],
  ],
  [
    ["", "1x1"],
    [1, [1, 0], ["", "1x1"]],
  ],
])("the cells of %j lie in %j", (rows, expected) => {
  expect(shown(rows)).toEqual(expected);
});

test("each cell begins in the first column that is free", () => {
  expect(gridOf([cells("1x1 1x3"), cells("2x1"), cells("1x1 1x1")]).starts).toEqual([[0, 1], [0], [0, 2]]);
  expect(gridOf([cells("2x2 1x1"), cells("1x1")]).starts).toEqual([[0, 2], [2]]);
});

test("rows are the head's where none of their cells reaches down among the others", () => {
  const rowOf = (row: string): unknown => ({
    type: "table_row",
    content: row.split(" ").map((one) => ({
      type: one.startsWith("h") ? "table_header" : "table_cell",
      attrs: { rowspan: Number(one.slice(1)) },
      content: [{ type: "paragraph" }],
    })),
  });
  const count = (...rows: string[]): number =>
    countHeadRows(schema.nodeFromJSON({ type: "table", content: rows.map(rowOf) }));
  expect(count("h1 h1", "d1 d1")).toBe(1);
  expect(count("h2 h1", "h1", "d1 d1")).toBe(2);
  expect(count("h1 h1", "h2 h1", "d1")).toBe(1);
  expect(count("h2 h1", "d1")).toBe(0);
  expect(count("h1", "h1")).toBe(2);
});
