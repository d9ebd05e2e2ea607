import { expect, test } from "@jest/globals";
import fc from "fast-check";
import {
  coveredShare,
  fitHotspot,
  hotspotBox,
  moveHotspot,
  noFrame,
  type Hotspot,
  type Point,
} from "./hotspot.ts";

const spot = (shape: Hotspot["shape"], ...points: Point[]): Hotspot => ({
  id: "a",
  shape,
  points,
  destination: { kind: "web", address: "https://tides.example/" },
  alt: "",
  description: null,
  frame: noFrame,
});

test("how much of one area another covers", () => {
  const below = spot("rectangle", [0.2, 0.2], [0.6, 0.4]);
  expect(coveredShare(below, spot("rectangle", [0, 0], [1, 1]))).toBeCloseTo(1, 6);
  expect(coveredShare(below, spot("rectangle", [0.4, 0], [1, 1]))).toBeCloseTo(0.5, 6);
  expect(coveredShare(below, spot("rectangle", [0.7, 0.7], [1, 1]))).toBe(0);
  expect(
    coveredShare(spot("polygon", [0, 0], [1, 0], [0, 1]), spot("rectangle", [0, 0], [0.5, 0.5])),
  ).toBeCloseTo(0.5, 6);
  // An ellipse fills π/4 of its box; a polygon of 48 corners comes within half a percent of it.
  expect(
    coveredShare(spot("rectangle", [0, 0], [0.5, 0.5]), spot("ellipse", [0, 0], [0.5, 0.5])),
  ).toBeCloseTo(Math.PI / 4, 2);
});

test("an area moves and is stretched inside its picture only", () => {
  const any = fc
    .array(fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true })), {
      minLength: 3,
      maxLength: 8,
    })
    .map((points) => spot("polygon", ...(points as Point[])));
  fc.assert(
    fc.property(
      any,
      fc.double({ min: -2, max: 2, noNaN: true }),
      fc.double({ min: -2, max: 2, noNaN: true }),
      (given, dx, dy) => {
        const before = hotspotBox(given);
        const after = hotspotBox(moveHotspot(given, dx, dy));
        for (const value of [after.x, after.y, after.x + after.width, after.y + after.height]) {
          expect(value).toBeGreaterThanOrEqual(0);
          expect(value).toBeLessThanOrEqual(1.0001);
        }
        expect(after.width).toBeCloseTo(before.width, 3);
        expect(after.height).toBeCloseTo(before.height, 3);
      },
    ),
  );
  const moved = fitHotspot(spot("polygon", [0, 0], [0.2, 0], [0.1, 0.2]), {
    x: 0.5,
    y: 0.5,
    width: 0.4,
    height: 0.4,
  });
  expect(moved.points).toEqual([
    [0.5, 0.5],
    [0.9, 0.5],
    [0.7, 0.9],
  ]);
});
