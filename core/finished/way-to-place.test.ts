import { expect, test } from "@jest/globals";
import type { FilePlaces } from "../manuscript/file-places.ts";
import { wayToPlace } from "./way-to-place.ts";

const book: FilePlaces = {
  pages: 9,
  places: [
    { at: "page=2", name: "Waders" },
    { at: "page=3", name: "Gulls" },
    { at: "page=5", name: "Gulls" },
    { at: "nameddest=w%C3%A4-1", name: "wä-1" },
    { at: "epubcfi(/6/4!/4/2%5Bknots%5D)", name: "Knots" },
    { at: "epubcfi(/6/4!/4%5Bknots-2%5D/6)", name: "More of them" },
  ],
};

test.each([
  ["a destination of its name", "wä-1", "", "nameddest=w%C3%A4-1"],
  ["an id of an e-book", "knots", "", "epubcfi(/6/4!/4/2%5Bknots%5D)"],
  ["not what only stands within that id", "knots-2", "", null],
  ["a page", "page-9", "", "page=9"],
  ["no page beyond the last", "page-10", "", null],
  ["the one place that is called so", "gone", "Waders", "page=2"],
  ["none of two that are", "gone", "Gulls", null],
])("a place is found in a file of its publication: %s", (_what, id, text, at) => {
  expect(wayToPlace(book, id, text)).toBe(at);
});
