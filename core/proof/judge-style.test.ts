import { expect, test } from "@jest/globals";
import { judgeStyle, wrongRules } from "./judge-style.ts";

test.each([
  ["display: none", "is not shown"],
  ["VISIBILITY:Hidden", "is not shown"],
  ["pointer-events : none !important", "takes no press"],
  ["opacity: 5%", "is hardly seen"],
  ["position:fixed", "lies over other things, or beside them"],
  ["font-size: 0.0em", "has no size"],
  ["text-indent: -9999px", "is moved"],
  ["transform: scale(0)", "is moved"],
])("“%s” keeps readers from a link", (style, why) => {
  expect(judgeStyle(style)).toBe(why);
});

test.each([
  "",
  "color: #123456",
  "opacity: 1",
  "display: block; width: 60%",
  "transform: none",
  "margin: 0 4%",
])("“%s” does not", (style) => {
  expect(judgeStyle(style)).toBeNull();
});

test("rules are found wherever they stand in a sheet, and what is no sheet is told", () => {
  expect(wrongRules("p { margin: 1em } @media print { a.web, a.place { pointer-events: none } }")).toEqual([
    { selector: "a.web, a.place", why: "takes no press" },
  ]);
  expect(wrongRules("a { display: none")).toHaveLength(1);
});
