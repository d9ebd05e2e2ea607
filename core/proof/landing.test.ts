import { expect, test } from "@jest/globals";
import { landsRight } from "./landing.ts";

test("words are landed on where they begin on the first line", () => {
  expect(landsRight("Low water", "2. Low water\nGo now.")).toBe(true);
  expect(landsRight("Low water", "High water\nLow water")).toBe(false);
  expect(landsRight("Low water", "")).toBe(false);
  expect(landsRight(null, "whatever")).toBe(true);
});

test("words that begin on a page's last line go on overleaf", () => {
  expect(landsRight("by here and there", "Table 2 Here at the quay, by\n2")).toBe(true);
  expect(landsRight("by here and there", "Table 2 Here at the quay, so\n2")).toBe(false);
  // What begins below the line is not landed on, and one letter says nothing.
  expect(landsRight("by here and there", "Table 2\nHere at the quay, by")).toBe(false);
  expect(landsRight("by here", "Table 2 b")).toBe(false);
});
