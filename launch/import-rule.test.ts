import { expect, test } from "@jest/globals";
import { spawnSync } from "node:child_process";
import { join } from "node:path";

/** What the linter says of a line of code, were it in a given file. */
function lint(file: string, code: string): string {
  const root = join(import.meta.dirname, "..");
  const run = spawnSync("npx", ["--no-install", "eslint", "--stdin", "--stdin-filename", file], {
    cwd: root,
    input: code,
    encoding: "utf8",
    env: { ...process.env, NODE_OPTIONS: "" },
  });
  return run.stdout;
}

test.each([
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
])("%s may not hold: %s", (file, code) => {
  expect(lint(file, code)).toContain("no-restricted-imports");
});

test("what the rooms share is allowed", () => {
  expect(lint("web/x.ts", 'import "@vennet/core/manuscript/ids";')).toBe("");
  expect(lint("core/publish/x.ts", 'import "../proof/compare.ts";')).toBe("");
  expect(lint("core/publish/formats/epub/read-back.ts", 'import "../../../proof/compare.ts";')).toBe("");
});

test("an import that closes a circle is refused", () => {
  expect(lint("core/manuscript/attributes.ts", 'import { schema } from "./schema.ts";')).toContain(
    "import-x/no-cycle",
  );
});
