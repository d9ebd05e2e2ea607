import { expect, test } from "@jest/globals";
import { assertLayout, pageSize, textWidth, defaultLayout } from "./page-layout.ts";

// ISO 216, and ANSI/ASME Y14.1 for Letter (from memory); 6 by 9 inches is a trade size.
test.each([
  ["a5", 148, 210],
  ["a4", 210, 297],
  ["letter", 215.9, 279.4],
  ["6x9", 152.4, 228.6],
] as const)("%s is %d by %d mm", (trim, width, height) => {
  expect(pageSize({ ...defaultLayout, trim })).toEqual({ width, height });
});

test("a page of one's own has the size that was given", () => {
  expect(pageSize({ ...defaultLayout, trim: "own", width: 120, height: 190 })).toEqual({
    width: 120,
    height: 190,
  });
  // 148 mm less two margins of 19 mm, at 96 px to the inch.
  expect(textWidth(defaultLayout)).toBeCloseTo(415.75, 2);
});

test.each([
  [{}, null],
  [{ trim: "own", width: 120, height: 190 }, null],
  [{ trim: "b5" }, "size of the page"],
  [{ trim: "own", width: 20 }, "width of the page is from 90 to 450 mm"],
  [{ inner: 2 }, "inner margin"],
  [{ inner: 60, outer: 60 }, "less than 50 mm"],
  [{ fontSize: "10" }, "size of the letters"],
  [{ runningHeads: 1 }, "there or not"],
  [{ pageNumbers: "left" }, "Page numbers"],
])("%j is judged", (change, message) => {
  const assert = () => assertLayout({ ...defaultLayout, ...change });
  if (message === null) expect(assert).not.toThrow();
  else expect(assert).toThrow(message);
});
