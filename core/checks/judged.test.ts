import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { findingsOfDocument } from "./cases/real-document.ts";

type Verdict = "right" | "wrong" | "worse" | "?";
type Judged = [Verdict, rule: string, words: string, to: string, mended: string | null];

const root = new URL("../../", import.meta.url);
const judged = JSON.parse(readFileSync(new URL("cases/judged.json", import.meta.url), "utf8")) as Record<
  string,
  Judged[]
>;

// Documents of npm packages, whose findings somebody has judged by hand; `npm run judge` reads those of Debian’s besides.
test("what the rules find in documents of others is what was judged, and none of their mends makes a link worse", async () => {
  let found = 0;
  const wrong: unknown[] = [];
  for (const [name, findings] of Object.entries(judged)) {
    if (!name.startsWith("npm:")) continue;
    const verdicts = new Map(findings.map(([verdict, ...finding]) => [JSON.stringify(finding), verdict]));
    const bytes = new Uint8Array(readFileSync(new URL(`node_modules/${name.slice(4)}`, root)));
    const now = await findingsOfDocument(name.split("/").at(-1)!, bytes);
    found += now.length;
    const keys = now.map(({ rule, words, to, mended }) => JSON.stringify([rule, words, to, mended]));
    for (const key of keys) {
      const verdict = verdicts.get(key) ?? "?";
      if (verdict !== "right") wrong.push([verdict, key]);
    }
    // What is not found any more was judged for nothing.
    expect([name, [...verdicts.keys()].filter((key) => !keys.includes(key))]).toEqual([name, []]);
  }
  expect(found).toBeGreaterThan(300);
  // A language of a page that leads to another: only asking tells.
  expect(wrong).toEqual([
    ["wrong", expect.stringContaining("docs/Web/API/Blob")],
    ["wrong", expect.stringContaining("en-US/docs/Web/API/Blob")],
  ]);
});
