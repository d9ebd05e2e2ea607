import { describe, expect, test } from "@jest/globals";
import { allCases } from "./cases/cases.ts";
import { judge } from "./cases/case.ts";
import { rules } from "./check-chapter.ts";

test("every rule has at least ten cases that it must find, and ten near ones that it must not", () => {
  expect(allCases.map(({ rule }) => rule).sort()).toEqual(rules.map(({ id }) => id).sort());
  for (const { rule, wrong, right } of allCases)
    expect([rule, wrong.length >= 10, right.length >= 10]).toEqual([rule, true, true]);
});

describe.each(allCases)("$rule", ({ rule, wrong, right }) => {
  test("finds what is wrong, and mends it as it ought to be", () => {
    for (const given of wrong) {
      const [one, mended] = Array.isArray(given) ? given : [given];
      const judged = judge(rule, one);
      expect([one, judged.findings.length > 0]).toEqual([one, true]);
      if (mended !== undefined) expect([one, judged.mended]).toEqual([one, mended]);
    }
  });

  test("leaves alone what is not", () => {
    for (const one of right)
      expect([one, judge(rule, one).findings.map(({ message }) => message)]).toEqual([one, []]);
  });
});
