import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { coveredShare } from "./covered.ts";
import type { Box } from "./exported-link.ts";

test.each([
  ["nothing over it", [[0, 0, 10, 10]], [], 0],
  ["all of it", [[0, 0, 10, 10]], [[-5, -5, 20, 20]], 1],
  ["its left half", [[0, 0, 10, 10]], [[0, 0, 5, 10]], 0.5],
  ["two that overlap", [[0, 0, 10, 10]], [[0, 0, 6, 10], [4, 0, 8, 10]], 0.8], // prettier-ignore
  ["one of its two lines", [[0, 0, 10, 10], [0, 20, 10, 30]], [[0, 0, 10, 10]], 0.5], // prettier-ignore
  ["one beside it", [[0, 0, 10, 10]], [[10, 0, 20, 10]], 0],
] as [string, Box[], Box[], number][])("covered by %s", (_what, boxes, above, share) => {
  expect(coveredShare(boxes, above)).toBeCloseTo(share);
});

test("agrees with counting small squares", () => {
  const side = fc.integer({ min: 0, max: 12 });
  const box = fc
    .tuple(side, side, side, side)
    .map(([a, b, c, d]): Box => [Math.min(a, c), Math.min(b, d), Math.max(a, c) + 1, Math.max(b, d) + 1]);
  fc.assert(
    fc.property(box, fc.array(box, { maxLength: 4 }), (under, above) => {
      let [all, covered] = [0, 0];
      for (let x = under[0]; x < under[2]; x++)
        for (let y = under[1]; y < under[3]; y++) {
          all++;
          if (above.some(([left, low, right, high]) => x >= left && x < right && y >= low && y < high))
            covered++;
        }
      expect(coveredShare([under], above)).toBeCloseTo(covered / all);
    }),
  );
});
