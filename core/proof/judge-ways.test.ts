import { expect, test } from "@jest/globals";
import { bookWith, chapter } from "../test/book-of-places.ts";
import { judgeWays } from "./judge-ways.ts";
import type { ReadPage } from "./exported-link.ts";

const book = bookWith([chapter("ebb", "Ebb"), chapter("low", "Low water"), chapter("flood", "Flood")]);
const titles = book.chapters.map(({ doc }) => doc.firstChild!.attrs["id"] as string);
const up = { words: "Contents", opens: "index.html" };
const page = (i: number, ...ways: ReadPage["ways"]): ReadPage => ({
  path: `${i}.html`,
  places: new Set([titles[i]!, "another"]),
  ways: [up, ...ways],
});
const toEbb = { words: "← Ebb", opens: "0.html" };
const toLow = { words: "Low water →", opens: "1.html" };
const toFlood = { words: "Flood →", opens: "2.html" };
const index: ReadPage = { path: "index.html", places: new Set(), ways: [] };
const ends = [page(0, toLow), page(2, { words: "← Low water", opens: "1.html" }), index];
const judged = (...middle: ReadPage["ways"]): string[] =>
  judgeWays(book, [...ends, page(1, ...middle)]).map(({ what }) => what);

test("each page leads to the chapters beside it and to the contents", () => {
  expect(judged(toEbb, toFlood)).toEqual([]);
  expect(judgeWays(book, [])).toEqual([]);
});

test.each([
  ["one that is dropped", [toEbb]],
  ["two that change places", [toFlood, toEbb]],
  ["one that leads nowhere", [toEbb, { ...toFlood, opens: null }]],
  ["one to the same page", [toEbb, { ...toFlood, opens: "1.html" }]],
])("%s is told", (_, ways) => {
  expect(judged(...ways)).toContain("Its ways on do not lead to the chapters before and after it.");
});

test("a way called by another title, or turned round, is told", () => {
  expect(judged({ ...toEbb, words: "← Flood" }, toFlood)).toEqual([
    "The way on to “Ebb” is called “← Flood”.",
  ]);
  expect(judged({ ...toEbb, words: "Ebb →" }, toFlood)).toEqual(["The way on to “Ebb” is called “Ebb →”."]);
});

test("a page of notes leads to the contents, and nowhere else", () => {
  const notes = (...ways: ReadPage["ways"]): string[] =>
    judgeWays(book, [...ends, page(1, toEbb, toFlood), { path: "notes.html", places: new Set(), ways }]).map(
      ({ what }) => what,
    );
  expect(notes(up)).toEqual([]);
  for (const ways of [[], [toEbb], [up, up], [{ ...up, opens: "notes.html" }]])
    expect(notes(...ways)).toEqual(["It has not one way back to the list of contents."]);
});

test("a page from which nothing leads to the contents is told", () => {
  const alone = { ...page(1, toEbb, toFlood), ways: [toEbb, toFlood] };
  expect(judgeWays(book, [...ends, alone]).map(({ what }) => what)).toEqual([
    "It has not one way back to the list of contents.",
  ]);
});
