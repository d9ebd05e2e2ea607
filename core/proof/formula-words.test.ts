import { expect, test } from "@jest/globals";
import { linkUses } from "../manuscript/links.ts";
import { bookOfFormulas } from "../test/book-of-formulas.ts";
import { isSetFrom, wordsAroundFormulas } from "./formula-words.ts";

test("the words around formulas are those that are none of theirs", () => {
  const { doc } = bookOfFormulas().chapters[0]!;
  const [around, alone] = linkUses(doc);
  expect(wordsAroundFormulas(doc, around!.from, around!.to)).toBe("by&lt;of 0");
  expect(wordsAroundFormulas(doc, alone!.from, alone!.to)).toBe("");
  expect(wordsAroundFormulas(doc, around!.from, around!.from + 3)).toBeNull();
});

test.each([
  ["above what", "see x²ᵢ here!", true],
  ["a root, and a letter of mathematics", "see √𝑥2𝑖 here!", true],
  ["a letter less", "see x2 here!", false],
  ["another letter", "see x2j here!", false],
  ["a letter more", "see x2ij here!", false],
  ["words that changed places", "here! xi2 see", false],
  ["a sign less", "see xi2 here", false],
  ["other capitals", "see Xi2 here!", false],
])("words with a formula that has %s", (_what, found, isSame) => {
  expect(isSetFrom("see xi2 here!", "see here!", found)).toBe(isSame);
});

test("signs of a formula are compared, those that its setting draws are not", () => {
  expect(isSetFrom("a+b", "", "b+a")).toBe(true);
  expect(isSetFrom("a+b", "", "ab")).toBe(false);
  expect(isSetFrom("x→", "", "x\u20d7")).toBe(true);
});
