import { build } from "./build.mjs";
import { LaunchError } from "./errors.mjs";
import { installNpmPackages } from "./install.mjs";

// `npm run mutate`: damages exported files in every way there is, and tells which damages the proof notices.
try {
  installNpmPackages();
  build();
  const { exportsToDamage } = await import("../server/dist/test/exports-to-damage.js");
  const { killTable } = await import("@vennet/core/proof/mutations/kill-table");
  const seed = Number(process.env.SEED ?? 42);
  const rows = await killTable(await exportsToDamage(10), 3, seed);
  const formats = ["pdf", "epub", "web", "markdown", "docx", "odt"];
  console.log(`| damage | ${formats.join(" | ")} |\n| --- | ${formats.map(() => "---").join(" | ")} |`);
  for (const mutation of new Set(rows.map((row) => row.mutation))) {
    const cells = formats.map((format) => {
      const row = rows.find((one) => one.mutation === mutation && one.format === format);
      return row ? `${row.killed} of ${row.done}` : "–";
    });
    console.log(`| ${mutation} | ${cells.join(" | ")} |`);
  }
  const kinds = new Set(rows.filter(({ done }) => done > 0).map(({ mutation }) => mutation)).size;
  const missed = rows.filter(({ done, killed }) => killed < done);
  const never = rows.filter(({ done }) => done === 0);
  console.log(`${kinds} kinds of damage; ${rows.reduce((sum, { done }) => sum + done, 0)} done.`);
  for (const { mutation, format, done, missed: places } of missed)
    console.log(
      `MISSED: ${mutation}, ${format}: ${places.length} of ${done} (${places.map((one) => `file ${one.file}, seed ${one.seed}`).join("; ")})`,
    );
  for (const { mutation, format } of never) console.log(`NEVER DONE: ${mutation}, ${format}`);
  process.exit(missed.length + never.length === 0 ? 0 : 1);
} catch (error) {
  console.error(error instanceof LaunchError ? error.message : error);
  process.exit(1);
}
