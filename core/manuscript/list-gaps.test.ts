import { expect, test } from "@jest/globals";
import { diffArrays } from "diff";
import fc from "fast-check";
import { gapsBetween } from "./list-gaps.ts";

const list = fc.array(fc.constantFrom("ebb", "flood", "slack", "neap", "spring"), { maxLength: 30 });
/** Some of these words are in one of the two lists alone. */
const other = fc.array(fc.constantFrom("ebb", "flood", "slack", "bar", "sound"), { maxLength: 30 });

test("what stands between gaps is in both lists, in its order, and is as much as can be", () => {
  fc.assert(
    fc.property(list, other, (before, after) => {
      let [at, there, common] = [0, 0, 0];
      const same = (from: number, start: number): void => {
        expect(before.slice(at, from)).toEqual(after.slice(there, start));
        common += from - at;
      };
      for (const { from, to, start, end } of gapsBetween(before, after)) {
        expect(to - from + end - start).toBeGreaterThan(0);
        same(from, start);
        [at, there] = [to, end];
      }
      same(before.length, after.length);
      // The longest that two lists have in common, as a diff of all of them finds it.
      const whole = diffArrays(before, after).filter(({ added, removed }) => !added && !removed);
      expect(common).toBe(whole.reduce((sum, { value }) => sum + value.length, 0));
    }),
  );
});

test("a gap tells what came in place of what", () => {
  expect(gapsBetween(["title", "ebb", "flood"], ["title", "neap", "spring", "flood", "slack"])).toEqual([
    { from: 1, to: 2, start: 1, end: 3 },
    { from: 3, to: 3, start: 4, end: 5 },
  ]);
});
