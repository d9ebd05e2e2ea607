import { expect, test } from "@jest/globals";
import { stretchesOf } from "./text-search.ts";

const text = "The tide\n  office. The Tide office (tide) [a.b]";

test.each([
  ["tide office", ["tide\n  office", "Tide office"]],
  ["  TIDE ", ["tide", "Tide", "tide"]],
  ["(tide)", ["(tide)"]],
  ["[a.b]", ["[a.b]"]],
  ["a.*b", []],
  [" ", []],
])("“%s” is found where it stands, over line ends too, and as it is written", (words, found) => {
  expect(stretchesOf(text, words).map(([from, to]) => text.slice(from, to))).toEqual(found);
});
