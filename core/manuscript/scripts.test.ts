import { expect, test } from "@jest/globals";
import { scriptsIn } from "./scripts.ts";

test.each([
  ["Low water, 12.5 m: Λ and Д too", []],
  ["the დიდი causeway, 大橋", ["Georgian", "Han"]],
  ["𞤀 is one letter", ["Adlam"]],
])("the scripts of “%s”", (text, expected) => {
  expect(scriptsIn(text).sort()).toEqual(expected);
});

test("the scripts of a text of millions of letters", () => {
  expect(scriptsIn(`${"the sands are wide ".repeat(700_000)}ღ`)).toEqual(["Georgian"]);
});
