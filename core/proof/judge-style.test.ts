import { expect, test } from "@jest/globals";
import { judgeStyle, wrongRules } from "./judge-style.ts";
import { harmfulStyles } from "./mutations/style-on-link.ts";

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

test.each(harmfulStyles)("“%s” keeps readers from a link, were it never thought of", (style) => {
  expect(judgeStyle(style)).not.toBeNull();
});

test.each([
  "",
  "color: #123456; font-size: 0.85em",
  "background: #1d1b19; color: #ece7db",
  "letter-spacing: 0.05em; text-transform: uppercase",
  "margin: 1em 0 1em 35%; padding-inline-start: 1.5em",
  "border: 1px solid #8a8578",
  "--own: none",
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
  expect(wrongRules("@import 'other.css'; p { margin: 0 }")).toHaveLength(1);
});

test("a colour is judged by the paper on which it stands", () => {
  const atNight = (rule: string): string => `@media (prefers-color-scheme: dark) { ${rule} }`;
  expect(wrongRules(atNight("a { color: #92bcf2 } body { background: #1d1b19; color: #ece7db }"))).toEqual(
    [],
  );
  expect(wrongRules("a { color: #ffffff }")).toHaveLength(1);
  expect(wrongRules(atNight("a { color: #000000 }"))).toHaveLength(1);
  expect(wrongRules("p { background: #111111 }")).toHaveLength(1);
  expect(wrongRules("p { background: #111111; color: #eeeeee }")).toEqual([]);
});
