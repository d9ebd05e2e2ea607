import { expect, test } from "@jest/globals";
import type { Node } from "prosemirror-model";
import { schema } from "../../../manuscript/schema.ts";
import { gridOf, type Spans } from "../../../manuscript/tables.ts";
import { linesInCells } from "./column-widths.ts";

const { table, table_row: row, table_cell: cell, paragraph, code_block: listing } = schema.nodes;
const words = (count: number): string => "low water ".repeat(count);
const cellOf = (content: string | Node, spans: Partial<Spans> = {}): Node =>
  cell!.create(spans, typeof content === "string" ? paragraph!.create(null, schema.text(content)) : content);
const tableOf = (...rows: Node[][]): Node =>
  table!.create(
    null,
    rows.map((cells) => row!.create(null, cells)),
  );
const linesOf = (one: Node, line: number): number[][] => {
  const grid = gridOf(one.children.map(({ children }) => children.map(({ attrs }) => attrs as Spans)));
  return linesInCells(one, grid, line).map((all) => all.map((width) => Math.round(width)));
};

test("columns with little in them are as wide as that, the others have equal shares of the rest", () => {
  expect(linesOf(tableOf([cellOf("ebb"), cellOf(words(40)), cellOf(words(9))]), 30)).toEqual([
    [Infinity, 12, 12],
  ]);
  expect(linesOf(tableOf([cellOf("ebb"), cellOf("flow")]), 30)).toEqual([[Infinity, Infinity]]);
});

test("a cell over several columns has the lines of all of them", () => {
  const all = tableOf(
    [cellOf(words(9), { colspan: 2 }), cellOf("ebb")],
    [cellOf(words(9)), cellOf(words(9)), cellOf("ebb")],
  );
  expect(linesOf(all, 30)).toEqual([
    [26, Infinity],
    [12, 12, Infinity],
  ]);
});

test("listings are narrower than text, tables in cells as wide as their columns together", () => {
  const code = listing!.create(null, schema.text("x".repeat(20)));
  expect(linesOf(tableOf([cellOf(code), cellOf(words(9))]), 30)).toEqual([[Infinity, 16]]);
  const inner = tableOf([cellOf(words(1)), cellOf(words(1))]);
  expect(linesOf(tableOf([cellOf(inner), cellOf(words(9))]), 40)).toEqual([[Infinity, 24]]);
  expect(linesOf(tableOf([cellOf(inner), cellOf(words(9))]), 20)).toEqual([[9, 9]]);
});

test("where more columns stand than have room, lines are not told as narrower than a word of some letters", () => {
  expect(linesOf(tableOf(Array.from({ length: 40 }, () => cellOf(words(9)))), 30)[0]).toEqual(
    Array<number>(40).fill(2),
  );
});
