import { expect, test } from "@jest/globals";
import { isSameArea, isShareOf } from "./areas.ts";
import type { ReadArea } from "./exported-link.ts";

const rectangle: ReadArea = {
  shape: "rectangle",
  points: [
    [0.25, 0.5],
    [0.75, 0.75],
  ],
};

test("a rectangle is the same by whichever corners it is told, and no other shape is", () => {
  const turned: ReadArea = {
    shape: "rectangle",
    points: [
      [0.75, 0.5],
      [0.25, 0.75],
    ],
  };
  expect(isSameArea(turned, rectangle)).toBe(true);
  expect(isSameArea({ ...turned, shape: "ellipse" }, rectangle)).toBe(false);
  expect(isSameArea({ shape: "rectangle", points: [] }, rectangle)).toBe(false);
});

test("a polygon is the same by its corners in their order", () => {
  const polygon: ReadArea = {
    shape: "polygon",
    points: [
      [0, 0],
      [1, 0],
      [0, 1],
    ],
  };
  expect(isSameArea(polygon, polygon)).toBe(true);
  expect(isSameArea({ ...polygon, points: polygon.points.slice(1) }, polygon)).toBe(false);
});

test("a box on a page is the share of a picture that is measured from the picture's top", () => {
  // A picture of 200 by 100 points; the area takes its middle half across, and the third quarter from its top.
  expect(isShareOf([150, 325, 250, 350], [100, 300, 300, 400], rectangle)).toBe(true);
  expect(isShareOf([150, 350, 250, 375], [100, 300, 300, 400], rectangle)).toBe(false);
});
