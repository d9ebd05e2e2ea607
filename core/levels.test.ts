import { expect, test } from "@jest/globals";
import { levels } from "./levels.ts";
import { deepestNest, wordsTooDeep } from "./manuscript/depth.ts";

interface Tree {
  name: string;
  inside: Tree[];
}
const tree = (name: string, ...inside: Tree[]): Tree => ({ name, inside });

test("the levels of a tree come from its root down, each as a whole", () => {
  const root = tree("a", tree("b", tree("d")), tree("c", tree("e"), tree("f")));
  const names = [...levels(root, ({ inside }) => inside)].map((level) =>
    level.map(({ name }) => name).join(""),
  );
  expect(names).toEqual(["a", "bc", "def"]);
});

test("a tree of a million levels is walked, and only as far as is asked for", () => {
  let deep: Tree = tree("end");
  for (let i = 0; i < 1_000_000; i++) deep = tree("", deep);
  let seen = 0;
  for (const [one] of levels(deep, ({ inside }) => inside)) {
    seen++;
    if (one!.name === "end") break;
  }
  expect(seen).toBe(1_000_001);
});

test("a chapter may be as deep as it may, and not one level deeper", () => {
  const nested = (levelsAbove: number): unknown => {
    let node: unknown = { type: "text", text: "Low water" };
    for (let i = 0; i < levelsAbove; i++) node = { content: [node] };
    return node;
  };
  expect(wordsTooDeep(nested(5 * deepestNest))).toBeNull();
  expect(wordsTooDeep(nested(5 * deepestNest + 1))).toBe("Low water");
  expect(wordsTooDeep({ content: "none" })).toBeNull();
  expect(wordsTooDeep(null)).toBeNull();
});
