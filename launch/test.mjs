import { spawn } from "node:child_process";
import { randomUUID } from "node:crypto";
import { once } from "node:events";
import { mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { build } from "./build.mjs";
import { installDebianPackages, toTest } from "./debian-packages.mjs";
import { LaunchError } from "./errors.mjs";
import { installNpmPackages, root } from "./install.mjs";

// `npm test`: installs what the tests need, runs every check, and ends with one line that counts them all.

// Everything that the tests leave lying about lies in here.
const folder = mkdtempSync(join(tmpdir(), "vennet-tests-"));
const id = randomUUID();
/** Ends all that this run has started, also when this process is killed. */
const guardian = spawn(process.execPath, [join(import.meta.dirname, "guardian.mjs"), id, folder], {
  stdio: ["pipe", "inherit", "inherit"],
  detached: true,
});
let passed = 0;
let failed = 0;
let ending = null;

for (const name of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(name, () => void end(1));

/** Ends the run in order: nothing that it started is left. */
function end(code) {
  return (ending ??= (async () => {
    guardian.stdin.end();
    if (guardian.exitCode === null) await once(guardian, "exit");
    process.exit(code);
  })());
}

/** @param name where others run at once: what the tool says is shown when it has ended, under this name */
async function runTool(command, args, environment = {}, name = null) {
  if (ending) await ending;
  const began = Date.now();
  const out = name === null ? "inherit" : "pipe";
  const tool = spawn(command, args, {
    cwd: root,
    stdio: ["ignore", out, out],
    env: { ...process.env, ...environment, VENNET_TEST_RUN: id, TMPDIR: folder },
  });
  const said = [];
  for (const stream of [tool.stdout, tool.stderr]) stream?.on("data", (bytes) => said.push(bytes));
  const [status] = await once(tool, "close");
  if (ending) await ending;
  if (name !== null) process.stdout.write(`-- ${name}\n${Buffer.concat(said)}`);
  console.log(`(${Math.round((Date.now() - began) / 1000)} s)`);
  return status;
}

/** A check that passes or fails as a whole. @param isAlone whether nothing runs beside it */
async function check(name, [command, ...args], isAlone = true) {
  console.log(`\n== ${name}`);
  const isNode = command === process.execPath;
  const all = isNode ? args : ["--no-install", command, ...args];
  if ((await runTool(isNode ? command : "npx", all, {}, isAlone ? null : name)) === 0) passed++;
  else {
    failed++;
    console.log(`FAILED: ${name}`);
  }
}

/** Checks one after the other, beside others. */
async function checks(all) {
  for (const [name, command] of all) await check(name, command, false);
}

/** A runner that counts its own tests into a JSON file; one that leaves none counts as one failure. */
async function runner(name, args, environment, count) {
  console.log(`\n== ${name}`);
  const file = join(folder, `${name.replace(/\W+/g, "-")}.json`);
  const status = await runTool("npx", ["--no-install", ...args(file)], environment(file));
  try {
    const counted = count(JSON.parse(readFileSync(file, "utf8")));
    passed += counted.passed;
    failed += counted.failed;
    if (status !== 0 && counted.failed === 0) failed++;
  } catch (error) {
    console.log(`FAILED: ${name} left no result (${error.message})`);
    failed++;
  }
}

// A test waits for what it waits for; the limit is for one that waits for what never comes.
const longest = String(10 * 60_000);

// Two at once, like the end-to-end tests: by itself Jest leaves one of two cores alone.
const jest = (name, ...args) =>
  runner(
    name,
    (file) => [
      "jest",
      "--json",
      `--outputFile=${file}`,
      `--testTimeout=${longest}`,
      "--maxWorkers=2",
      ...args,
    ],
    () => ({ NODE_OPTIONS: "--experimental-vm-modules --no-warnings" }),
    (json) => ({
      passed: json.numPassedTests,
      failed: json.numFailedTests + json.numRuntimeErrorTestSuites,
    }),
  );

try {
  installDebianPackages(toTest);
  installNpmPackages();
  build();
  // Each keeps one core busy.
  await Promise.all([
    checks([
      ["types of the web application", ["tsc", "-p", "web"]],
      ["types of the end-to-end tests", ["tsc", "-p", "e2e"]],
      ["format", ["prettier", "--check", "--log-level", "warn", "."]],
    ]),
    checks([
      ["lint", ["eslint", "."]],
      ["unused files, dependencies and exports", ["knip"]],
    ]),
  ]);
  await jest("unit tests", "--selectProjects", "core", "web", "launch");
  await jest("server tests", "--selectProjects", "server");
  await check("campaign, short form", [process.execPath, "launch/campaign.mjs", "--short"]);
  await runner(
    "end-to-end tests",
    () => ["playwright", "test", "--config", "e2e/playwright.config.ts"],
    (file) => ({ PLAYWRIGHT_JSON_OUTPUT_NAME: file }),
    ({ stats }) => ({ passed: stats.expected, failed: stats.unexpected + stats.flaky }),
  );
} catch (error) {
  console.error(error instanceof LaunchError ? error.message : error);
  failed++;
}
console.log(`\n${passed} passed, ${failed} failed`);
await end(failed === 0 ? 0 : 1);
