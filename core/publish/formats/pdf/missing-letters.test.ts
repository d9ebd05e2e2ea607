import { expect, test } from "@jest/globals";
import { bookOf } from "../../../test/sample-book.ts";
import { findMissingLetters } from "./missing-letters.ts";

const latin = (codePoint: number): boolean => codePoint < 0x250;

test("a letter that no font has is told once, with the place where it stands first", () => {
  const { letters, warnings } = findMissingLetters(
    bookOf("# Tides\n\nThe sign 潮 means tide, and 潮 again.\n\n# Night\n\nNow 夜 falls."),
    latin,
  );
  expect([...letters]).toEqual(["潮", "夜"]);
  expect(warnings).toEqual([
    {
      code: "letter",
      chapter: "Tides",
      message: expect.stringContaining("“潮” (U+6F6E), near “The sign 潮 means tide, and 潮 again”"),
    },
    { code: "letter", chapter: "Night", message: expect.stringContaining("“夜” (U+591C)") },
  ]);
});

test("blanks, joiners, marks and variation signs need no shape; a title's letters do", () => {
  const book = bookOf("# A\u0301\n\nNarrow\u202fblank, soft\u00adhyphen, e\u0301, heart\ufe0f.", {
    title: "潮",
  });
  const { letters, warnings } = findMissingLetters(book, latin);
  expect([...letters]).toEqual(["潮"]);
  expect(warnings[0]).toMatchObject({ chapter: null });
});
