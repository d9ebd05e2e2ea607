import { spawnSync } from "node:child_process";
import { LaunchError } from "./errors.mjs";

/**
 * What the application itself needs: the database's programs, without a service of the system's own, and fonts for all
 * scripts (12 MB and 57 MB to fetch; the same as packages of the registry would be some 40 MB and 170 MB).
 */
export const toRun = ["mariadb-server-core", "mariadb-client", "fonts-noto-core", "fonts-noto-cjk"];
/** What the tests need besides: a browser and the readers that this project did not write. */
export const toTest = [
  ...toRun,
  "chromium-headless-shell",
  "poppler-utils",
  "qpdf",
  "epubcheck",
  "default-jre-headless",
  "redis-server",
];

function isInstalled(name) {
  const found = spawnSync("dpkg-query", ["-W", "-f", "${db:Status-Status}", name], { encoding: "utf8" });
  return found.status === 0 && found.stdout === "installed";
}

/** Installs the Debian packages that are missing, with sudo where this is not root. */
export function installDebianPackages(names) {
  const missing = names.filter((name) => !isInstalled(name));
  if (missing.length === 0) return;
  const list = missing.join(" ");
  const isRoot = process.getuid?.() === 0;
  const hasSudo = !isRoot && spawnSync("sudo", ["-n", "true"], { stdio: "ignore" }).status === 0;
  const askable =
    !isRoot && process.stdin.isTTY && spawnSync("which", ["sudo"], { stdio: "ignore" }).status === 0;
  if (!isRoot && !hasSudo && !askable) {
    throw new LaunchError(
      "packages",
      `These Debian packages are missing and need an administrator: apt-get install ${list}`,
    );
  }
  console.log(`Installing Debian packages: ${list}`);
  const run = (args) => {
    const [command, ...rest] = isRoot ? args : ["sudo", ...args];
    return spawnSync(command, rest, {
      stdio: ["inherit", "ignore", "inherit"],
      env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
    });
  };
  run(["apt-get", "update", "-q"]);
  if (run(["apt-get", "install", "-y", "-q", "--no-install-recommends", ...missing]).status !== 0) {
    throw new LaunchError(
      "packages",
      `The Debian packages could not be installed. Try by hand: apt-get install ${list}`,
    );
  }
}
