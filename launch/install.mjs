import { spawnSync } from "node:child_process";
import { existsSync, statSync } from "node:fs";
import { join } from "node:path";
import { LaunchError } from "./errors.mjs";

export const root = join(import.meta.dirname, "..");

/** Installs the npm packages where the lock file is newer than what is installed. */
export function installNpmPackages() {
  const lock = join(root, "package-lock.json");
  const installed = join(root, "node_modules/.package-lock.json");
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(lock).mtimeMs) return;
  // Not `npm ci`: it wants other systems' optional packages in the lock file, which npm leaves out where a
  // registry lacks them.
  console.log("Installing npm packages (this takes a minute the first time)");
  run(
    "npm",
    ["install", "--no-save", "--no-audit", "--no-fund", "--loglevel=error"],
    "The npm packages could not be installed.",
  );
}

/** Runs a command to its end; its own words are shown, and a failure becomes one clear line. */
export function run(command, args, failure, options = {}) {
  const ended = spawnSync(command, args, { cwd: root, stdio: ["ignore", "inherit", "inherit"], ...options });
  if (ended.status !== 0) throw new LaunchError("step", failure);
}
