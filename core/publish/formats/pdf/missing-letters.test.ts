import { expect, test } from "@jest/globals";
import { bookOf } from "../../../test/sample-book.ts";
import { findMissingLetters } from "./missing-letters.ts";
import type { Shapes } from "./script-fonts.ts";

/** Literata has Latin, and the family for Hebrew its letters and points. */
const shapes: Shapes = {
  has: (family, codePoint) =>
    family === "Literata"
      ? codePoint > 0x1f && codePoint < 0x250
      : family === "Noto Serif Hebrew" && codePoint > 0x590 && codePoint < 0x5ff,
};

test("letters that no font has are told by script and chapter, with how often and where they stand first", () => {
  const { letters, changes } = findMissingLetters(
    bookOf("# Tides\n\nThe sign 潮 means tide, and 潮 again.\n\n# Night\n\nNow 夜 falls on அ and on 潮."),
    shapes,
  );
  expect([...letters]).toEqual([
    ["潮", "□"],
    ["夜", "□"],
    ["அ", "□"],
  ]);
  expect(changes.map(({ chapter, message }) => [chapter, message.split(";")[0]])).toEqual([
    [
      "Tides",
      "Han: no font of the PDF has a shape for “潮” (U+6F6E), 2 times, near “The sign 潮 means tide, and 潮 again”",
    ],
    [
      "Night",
      "Han: no font of the PDF has a shape for “夜” (U+591C), once, near “Now 夜 falls on அ and on 潮.”",
    ],
    ["Night", expect.stringMatching(/^Han: .* “潮” .*once/)],
    ["Night", expect.stringMatching(/^Tamil: .* “அ” /)],
  ]);
});

test("of a letter with marks, all or none stand in one font; what it has no mark for stays without", () => {
  const { letters } = findMissingLetters(bookOf("# A\n\nשָׁלוֹם, a\u05b0nd e\u0301, x\u0e47."), shapes);
  expect([...letters]).toEqual([
    ["a\u05b0", "a"],
    ["x\u0e47", "x"],
  ]);
});

test("blanks, joiners and variation signs need no shape; a title’s letters and control characters do", () => {
  const book = bookOf("# A\n\nNarrow\u202fblank, soft\u00adhyphen, heart\ufe0f, bell\u0007.", {
    title: "潮",
  });
  const { letters, changes } = findMissingLetters(book, shapes);
  expect([...letters.keys()]).toEqual(["潮", "\u0007"]);
  expect(changes.find(({ chapter }) => chapter === null)?.message).toContain("潮");
});
