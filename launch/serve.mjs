import { join } from "node:path";
import { build } from "./build.mjs";
import { installDebianPackages, toRun } from "./debian-packages.mjs";
import { LaunchError } from "./errors.mjs";
import { installNpmPackages, root } from "./install.mjs";
import { endOnSignals, Processes } from "./processes.mjs";
import { startServer } from "./services.mjs";
import { keepRunning } from "./supervise.mjs";

// `npm run serve`: the server alone, for strangers: no demo, no stand-ins, a database that is there already.

const processes = new Processes();
const stop = endOnSignals(processes, () => undefined);

try {
  installDebianPackages(toRun);
  installNpmPackages();
  build();
  // Modules ask for it as they are loaded.
  process.env.NODE_ENV = "production";
  const env = { ...process.env };
  await judge(env);
  await keepRunning(processes, () => startServer(processes, env));
  console.log(`Vennet listens on ${env.HOST || "127.0.0.1"}, port ${env.PORT ?? 4600}.`);
} catch (error) {
  console.error(error instanceof LaunchError || error.name === "SettingsError" ? error.message : error);
  await stop(1);
}

/** Says what is doubtful in the settings, and refuses what is wrong. */
async function judge(env) {
  const { Settings } = await import(join(root, "server/dist/settings.js"));
  const { doubtfulSettings, wrongSettings } = await import(
    join(root, "server/dist/operating/judge-settings.js")
  );
  const settings = new Settings(env);
  const wrong = wrongSettings(settings);
  if (wrong.length > 0) throw new LaunchError("settings", wrong.join("\n"));
  for (const line of doubtfulSettings(settings)) console.error(`Doubtful: ${line}`);
}
