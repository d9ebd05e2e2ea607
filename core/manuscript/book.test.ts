import { expect, test } from "@jest/globals";
import { bookOf, bringIn } from "../test/sample-book.ts";
import { indexOf, picturesIn, usedPictures } from "./book.ts";
import { placesOf } from "./outline.ts";
import { pictureWords } from "./attributes.ts";
import { countHeadRows } from "./tables.ts";

test("each landing place is known by its chapter; of two equal ids the first counts", () => {
  const book = bookOf("# One\n\n## Low\n\n# Two");
  const chapters = (of: typeof book) => [...indexOf(of).places.values()].map(({ chapter }) => chapter);
  expect(chapters(book)).toEqual([-1, 0, 0, 1]);
  const twice = { ...book, chapters: [book.chapters[0]!, book.chapters[0]!] };
  expect(chapters(twice)).toEqual([-1, 0, 0]);
  expect(placesOf(book.chapters[0]!.doc)).toHaveLength(2);
});

test("pictures are found in reading order, also in tables and notes; only brought ones have files", () => {
  const book = bookOf("# T\n\n![a](a.png)\n\n| ![b](b.png) |\n|---|\n\nx[^1]\n\n[^1]: ![c](c.png)");
  expect(picturesIn(book).map(({ alt }) => alt)).toEqual(["a", "b", "c"]);
  expect(usedPictures(book).size).toBe(0);
});

test("a picture that was not brought along is told by its words, else by its file's name", () => {
  const picture = { file: null, alt: "", decorative: false, source: "maps/sound.png?v=2#x" };
  expect(pictureWords({ ...picture, alt: "Map" })).toBe("Map");
  expect(pictureWords(picture)).toBe("sound.png");
  expect(pictureWords({ ...picture, source: null })).toBe("picture");
  expect(pictureWords({ ...picture, file: "f" })).toBe("");
});

test("head rows are those at the top that hold header cells alone", () => {
  const table = (html: string) => bringIn(`# T\n\n<table>${html}</table>`).chapters[0]!.child(1);
  expect(countHeadRows(table("<tr><th>a</th></tr><tr><td>b</td></tr>"))).toBe(1);
  expect(countHeadRows(table("<tr><th>a</th><td>b</td></tr>"))).toBe(0);
  expect(countHeadRows(table("<tr><th>a</th></tr><tr><th>b</th></tr>"))).toBe(2);
  expect(countHeadRows(table("<tr><td>a</td></tr><tr><th>b</th></tr>"))).toBe(0);
});
