import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { shapeOf } from "./json-shape.ts";

const shape = (json: string) => shapeOf(new TextEncoder().encode(json));

/** The shape of a value that was read. */
function shapeOfValue(value: unknown): { levels: number; longestList: number } {
  if (typeof value !== "object" || value === null) return { levels: 0, longestList: 0 };
  const inner = Object.values(value).map(shapeOfValue);
  return {
    levels: 1 + Math.max(0, ...inner.map(({ levels }) => levels)),
    longestList: Math.max(
      Array.isArray(value) ? Math.max(1, value.length) : 0,
      ...inner.map(({ longestList }) => longestList),
    ),
  };
}

test("a text has the shape of the value that it is read as", () => {
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 5 }), fc.nat({ max: 2 }), (value, indent) => {
      expect(shape(JSON.stringify(value, null, indent))).toEqual({
        isList: Array.isArray(value),
        ...shapeOfValue(value),
      });
    }),
  );
});

test("brackets, commas and escaped quotes in strings are words", () => {
  expect(shape(String.raw`{"a[\"{,,":"],\\","b":[1,2,{"c":"\"[[["}]}`)).toEqual({
    isList: false,
    levels: 3,
    longestList: 3,
  });
});

test("what never ends is looked over to its end", () => {
  expect(shape("[".repeat(1_000_000)).levels).toBe(1_000_000);
  expect(shape('"'.repeat(3))).toEqual({ isList: false, levels: 0, longestList: 0 });
});
