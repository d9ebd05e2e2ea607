import { build } from "./build.mjs";
import { installDebianPackages, toRun } from "./debian-packages.mjs";
import { LaunchError } from "./errors.mjs";
import { installNpmPackages } from "./install.mjs";

// `npm run campaign [-- --short] [-- PART OF A NAME …]`: attacks a Vennet of its own, and tells what others felt of it.

try {
  installDebianPackages(toRun);
  installNpmPackages();
  build();
  const { campaign } = await import("../campaign/campaign.mjs");
  const given = process.argv.slice(2);
  const seed = Number(process.env.SEED ?? 42);
  const only = given.filter((word) => !word.startsWith("--"));
  const { rows, wrong } = await campaign({ short: given.includes("--short"), seed, only });
  console.log(table(rows));
  for (const line of wrong) console.log(`WRONG: ${line}`);
  console.log(wrong.length === 0 ? "Nothing was wrong." : `${wrong.length} things were wrong.`);
  process.exit(wrong.length === 0 ? 0 : 1);
} catch (error) {
  console.error(error instanceof LaunchError ? error.message : error);
  process.exit(1);
}

/** Rows as a table of Markdown. */
function table(rows) {
  const heads = Object.keys(rows[0]);
  const line = (cells) => `| ${cells.join(" | ")} |`;
  return [
    line(heads),
    line(heads.map(() => "---")),
    ...rows.map((row) => line(heads.map((head) => row[head]))),
  ].join("\n");
}
