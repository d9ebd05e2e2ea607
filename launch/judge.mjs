import { execFileSync } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { build } from "./build.mjs";
import { LaunchError } from "./errors.mjs";
import { installNpmPackages } from "./install.mjs";
import { judgePages } from "./judge-pages.mjs";

// `npm run judge`: puts every rule to its labelled cases and to documents of others, whose findings somebody has judged by hand, and
// prints precision and recall; then does as much for what tells changed pages. `--write` adds findings that nobody has judged yet to the kept ones, with “?” for a verdict.

const kept = new URL("../core/checks/cases/judged.json", import.meta.url);
const aims = { stop: 0.99, fix: 0.99, consider: 0.95 };
const recallAim = 0.95;

/** The bytes of documents by their names: of npm packages at hand, and of Debian packages that are fetched without being installed. */
function readDocuments(names) {
  const folder = mkdtempSync(join(tmpdir(), "vennet-judge-"));
  try {
    const packages = [...new Set(names.flatMap((name) => /^deb:([^/]+)/.exec(name)?.[1] ?? []))];
    let isFetched = packages.length > 0;
    try {
      if (isFetched)
        execFileSync("apt-get", ["download", ...packages], {
          cwd: folder,
          stdio: "ignore",
          timeout: 120_000,
        });
    } catch {
      isFetched = false;
      console.log("The Debian packages could not be fetched: their documents are left out.");
    }
    for (const file of isFetched ? readdirSync(folder) : [])
      execFileSync("dpkg", ["-x", file, "out"], { cwd: folder });
    return new Map(
      names.flatMap((name) => {
        const path = name.startsWith("npm:")
          ? join("node_modules", name.slice(4))
          : join(folder, "out", name.replace(/^deb:[^/]+\//, ""));
        return existsSync(path) ? [[name, new Uint8Array(readFileSync(path))]] : [];
      }),
    );
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function keyOf({ rule, words, to, mended }) {
  return JSON.stringify([rule, words, to, mended]);
}

try {
  installNpmPackages();
  build();
  const { rules } = await import("@vennet/core/checks/check-chapter");
  const { allCases } = await import("@vennet/core/checks/cases/cases");
  const { judge } = await import("@vennet/core/checks/cases/case");
  const { findingsOfDocument } = await import("@vennet/core/checks/cases/real-document");
  const counts = new Map(rules.map(({ id }) => [id, { right: 0, wrong: 0, missed: 0, worse: 0 }]));

  for (const { rule, wrong, right } of allCases) {
    const count = counts.get(rule);
    for (const given of wrong) {
      const [one, mended] = Array.isArray(given) ? given : [given];
      const judged = judge(rule, one);
      count[judged.findings.length > 0 ? "right" : "missed"]++;
      if (mended !== undefined && judged.mended !== mended) count.worse++;
    }
    for (const one of right) if (judge(rule, one).findings.length > 0) count.wrong++;
  }

  const judged = JSON.parse(readFileSync(kept, "utf8"));
  const unjudged = [];
  const documents = readDocuments(Object.keys(judged));
  let found = 0;
  for (const [name, bytes] of documents) {
    const verdicts = new Map(judged[name].map(([verdict, ...finding]) => [JSON.stringify(finding), verdict]));
    for (const finding of await findingsOfDocument(name.split("/").at(-1), bytes)) {
      found++;
      const verdict = verdicts.get(keyOf(finding));
      const count = counts.get(finding.rule);
      if (verdict === "right" || verdict === "wrong") count[verdict]++;
      else if (verdict === "worse") {
        count.right++;
        count.worse++;
      } else {
        unjudged.push(`${name}: ${keyOf(finding)}`);
        if (verdict === undefined) {
          judged[name].push(["?", finding.rule, finding.words, finding.to, finding.mended]);
          verdicts.set(keyOf(finding), "?");
        }
      }
    }
  }
  if (process.argv.includes("--write")) {
    const lines = Object.entries(judged).map(
      ([name, findings]) =>
        `${JSON.stringify(name)}: [${findings.length > 0 ? "\n" : ""}${findings.map((one) => `  ${JSON.stringify(one)}`).join(",\n")}${findings.length > 0 ? "\n" : ""}]`,
    );
    writeFileSync(kept, `{\n${lines.join(",\n")}\n}\n`);
  }

  console.log(
    "| rule | severity | found rightly | wrongly | missed | precision | recall | mends that make worse |",
  );
  console.log("| --- | --- | --- | --- | --- | --- | --- | --- |");
  const short = [];
  for (const { id, severity } of rules) {
    const { right, wrong, missed, worse } = counts.get(id);
    const precision = right / (right + wrong);
    const recall = right / (right + missed);
    console.log(
      `| ${id} | ${severity} | ${right} | ${wrong} | ${missed} | ${precision.toFixed(3)} | ${recall.toFixed(3)} | ${worse} |`,
    );
    if (precision < aims[severity] || recall < recallAim || worse > 0) short.push(id);
  }
  const cases = allCases.reduce((sum, { wrong, right }) => sum + wrong.length + right.length, 0);
  console.log(`${cases} cases, ${found} findings in ${documents.size} documents of others.`);
  for (const one of unjudged) console.log(`NOT JUDGED: ${one}`);
  for (const id of short) console.log(`SHORT OF ITS AIM: ${id}`);
  const isReached = await judgePages();
  if (!isReached) console.log("SHORT OF ITS AIM: telling changed pages");
  process.exit(unjudged.length + short.length === 0 && isReached ? 0 : 1);
} catch (error) {
  console.error(error instanceof LaunchError ? error.message : error);
  process.exit(1);
}
