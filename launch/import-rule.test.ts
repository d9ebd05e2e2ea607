import { beforeAll, expect, test } from "@jest/globals";
import { spawnSync } from "node:child_process";
import { join } from "node:path";

type Line = readonly [file: string, code: string];

const refused: Line[] = [
  ["core/reach/x.ts", 'import "../publish/travel.ts";'],
  ["core/proof/x.ts", 'import "../publish/travel.ts";'],
  ["core/publish/formats/epub/read-back.ts", 'import "./write-epub.ts";'],
  ["core/publish/formats/epub/read-back.ts", 'import "../../travel.ts";'],
  ["core/destination/x.ts", 'import "../proof/compare.ts";'],
  ["core/publish/x.ts", 'import "node:fs";'],
  ["core/publish/x.ts", 'import "react";'],
  ["web/shelf/x.ts", 'import "../../server/settings.ts";'],
  ["web/x.ts", 'import "../core/manuscript/ids.ts";'],
  ["server/x.ts", 'import "@vennet/web/api/client";'],
];
const allowed: Line[] = [
  ["web/x.ts", 'import "@vennet/core/manuscript/ids";'],
  ["core/publish/x.ts", 'import "../proof/compare.ts";'],
  ["core/publish/formats/epub/read-back.ts", 'import "../../../proof/compare.ts";'],
];
const circle: Line = ["core/manuscript/attributes.ts", 'import { schema } from "./schema.ts";'];

/** The rules that each line breaks, by the linter; in one process of its own, since each costs seconds to start. */
let broken: ReadonlyMap<Line, string[]>;

beforeAll(() => {
  const lines = [...refused, ...allowed, circle];
  const script = `import { ESLint } from "eslint";
    const linter = new ESLint();
    const rules = [];
    for (const [filePath, code] of ${JSON.stringify(lines)})
      rules.push((await linter.lintText(code, { filePath }))[0].messages.map(({ ruleId }) => ruleId));
    console.log(JSON.stringify(rules));`;
  const run = spawnSync(process.execPath, ["--input-type=module", "-e", script], {
    cwd: join(import.meta.dirname, ".."),
    encoding: "utf8",
    env: { ...process.env, NODE_OPTIONS: "" },
  });
  expect(run.stderr).toBe("");
  const rules = JSON.parse(run.stdout) as string[][];
  broken = new Map(lines.map((line, i) => [line, rules[i]!]));
});

test.each(refused.map((line) => [...line, line] as const))("%s may not hold: %s", (_file, _code, line) => {
  expect(broken.get(line)).toContain("no-restricted-imports");
});

test("what the rooms share is allowed", () => {
  expect(allowed.map((line) => broken.get(line))).toEqual([[], [], []]);
});

test("an import that closes a circle is refused", () => {
  expect(broken.get(circle)).toContain("import-x/no-cycle");
});
