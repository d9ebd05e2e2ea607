import { describe, expect, test } from "@jest/globals";
import ipaddr from "ipaddr.js";
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

// Understood at once: what a reader would meet, and what to do.
test("every finding is told in at most two sentences, and none is long", () => {
  const long: unknown[] = [];
  for (const { rule, wrong } of allCases)
    for (const given of wrong) {
      const [finding] = judge(rule, Array.isArray(given) ? given[0] : given).findings;
      // What is quoted of the book or of an address is as long as it is.
      const told = finding!.message.replace(/“[^”]*”/g, "“x”").replace(/\S{30,}/g, "x");
      const sentences = told.split(/[.?!](?:\s|$)/).filter((one) => one.trim() !== "").length;
      if (sentences > 2 || told.length > 200) long.push([rule, sentences, told]);
    }
  expect(long).toEqual([]);
});

test("what is one's own network is what ipaddr.js does not call public, of addresses in numbers", () => {
  const { wrong, right } = allCases.find(({ rule }) => rule === "own-network")!;
  let judged = 0;
  for (const [cases, isOwn] of [
    [wrong, true],
    [right, false],
  ] as const)
    for (const given of cases) {
      const { hostname } = new URL(/<([^>]*)>/.exec(given as string)![1]!);
      const host = hostname.replace(/^\[|\]$/g, "");
      if (!ipaddr.isValid(host)) continue;
      judged++;
      expect([host, ipaddr.process(host).range() !== "unicast"]).toEqual([host, isOwn]);
    }
  expect(judged).toBeGreaterThan(15);
});
