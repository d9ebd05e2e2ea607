import { expect, test } from "@jest/globals";
import { readWhereInPage, whereInPage } from "./where-in-page.ts";
import { readWhere, whereOf } from "./where-in-pdf.ts";

test("where a link stands can be read back", () => {
  expect(readWhere(whereOf(12, [54.4, -3.2, 366, 411.7]))).toEqual({ page: 12, rect: [54, -3, 366, 412] });
  const file = "EPUB/a, link 3#b.xhtml";
  expect(readWhereInPage(whereInPage(file, "l1", 4))).toEqual({ file, id: "l1", count: null });
  expect(readWhereInPage(whereInPage(file, null, 4))).toEqual({ file, id: null, count: 4 });
});

test("other words are no place", () => {
  expect(readWhere("a footnote, link 2")).toBeNull();
  expect(readWhereInPage("the text")).toBeNull();
});
