import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { build } from "./build.mjs";
import { installDebianPackages, toTest } from "./debian-packages.mjs";
import { LaunchError } from "./errors.mjs";
import { installNpmPackages, root } from "./install.mjs";

// `npm test`: installs what the tests need, runs every check, and ends with one line that counts them all.

const results = mkdtempSync(join(tmpdir(), "vennet-results-"));
let passed = 0;
let failed = 0;

function runTool(command, args, environment = {}) {
  return spawnSync(command, args, {
    cwd: root,
    stdio: ["ignore", "inherit", "inherit"],
    env: { ...process.env, ...environment },
  }).status;
}

/** A check that passes or fails as a whole. */
function check(name, args) {
  console.log(`\n== ${name}`);
  if (runTool("npx", ["--no-install", ...args]) === 0) passed++;
  else {
    failed++;
    console.log(`FAILED: ${name}`);
  }
}

/** A runner that counts its own tests into a JSON file; one that leaves none counts as one failure. */
function runner(name, args, environment, count) {
  console.log(`\n== ${name}`);
  const file = join(results, `${name.replace(/\W+/g, "-")}.json`);
  const status = runTool("npx", ["--no-install", ...args(file)], environment(file));
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

const jest = (name, ...args) =>
  runner(
    name,
    (file) => ["jest", "--json", `--outputFile=${file}`, "--testTimeout=60000", ...args],
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
  check("types of the web application", ["tsc", "-p", "web"]);
  check("types of the end-to-end tests", ["tsc", "-p", "e2e"]);
  check("lint", ["eslint", "."]);
  check("format", ["prettier", "--check", "--log-level", "warn", "."]);
  jest("unit tests", "--selectProjects", "core", "web", "launch");
  // The server's tests share one database, so they run one after the other.
  jest("server tests", "--selectProjects", "server", "--runInBand");
  runner(
    "end-to-end tests",
    () => ["playwright", "test", "--config", "e2e/playwright.config.ts"],
    (file) => ({ PLAYWRIGHT_JSON_OUTPUT_NAME: file }),
    ({ stats }) => {
      if (stats.flaky > 0)
        console.log(`${stats.flaky} of the end-to-end tests passed at the second try only.`);
      return { passed: stats.expected + stats.flaky, failed: stats.unexpected };
    },
  );
} catch (error) {
  console.error(error instanceof LaunchError ? error.message : error);
  failed++;
} finally {
  rmSync(results, { recursive: true, force: true });
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
