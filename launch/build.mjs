import { existsSync, mkdirSync, readdirSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { LaunchError } from "./errors.mjs";
import { installNpmPackages, root, run } from "./install.mjs";

const stamp = join(root, ".vennet/built");
const sources = ["core", "server", "standins", "web", "package-lock.json", "tsconfig.base.json"];

/** Builds what is older than its sources: core, server and stand-ins, the server's bundle, the interface's types, the web application. */
export function build() {
  if (existsSync(stamp) && statSync(stamp).mtimeMs > newest(sources.map((source) => join(root, source))))
    return;
  console.log("Building");
  run(
    "npx",
    ["--no-install", "tsc", "-b", "core", "server", "standins"],
    "The build failed: the types do not fit.",
  );
  bundleServer();
  writeInterfaceTypes();
  run(
    "npx",
    ["--no-install", "vite", "build", "--logLevel", "warn", "web"],
    "The web application could not be built.",
  );
  mkdirSync(join(root, ".vennet"), { recursive: true });
  writeFileSync(stamp, "");
}

/** Puts the compiled server and its worker process into few files, which load in half the time. */
function bundleServer() {
  run(
    "npx",
    ["--no-install", "rolldown", "-c", "rolldown.config.mjs"],
    "The server could not be put into one file.",
    { cwd: join(root, "server"), stdio: ["ignore", "ignore", "inherit"] },
  );
}

/** Writes the interface's description and, from it, the types with which the web application calls it. */
export function writeInterfaceTypes() {
  run("node", ["server/dist/openapi/write-openapi.js"], "The interface's description could not be written.");
  run(
    "npx",
    ["--no-install", "openapi-typescript", "server/openapi.json", "-o", "web/api/schema.d.ts"],
    "The interface's types could not be made.",
    { stdio: ["ignore", "ignore", "inherit"] },
  );
}

function newest(paths) {
  let time = 0;
  for (const path of paths) {
    const found = statSync(path);
    if (!found.isDirectory()) time = Math.max(time, found.mtimeMs);
    else {
      const inside = readdirSync(path).filter(
        (name) =>
          !["dist", "bundle", "node_modules", "openapi.json", "schema.d.ts"].includes(name) &&
          !name.endsWith(".tsbuildinfo"),
      );
      time = Math.max(time, newest(inside.map((name) => join(path, name))));
    }
  }
  return time;
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) {
  try {
    installNpmPackages();
    build();
  } catch (error) {
    if (!(error instanceof LaunchError)) throw error;
    console.error(error.message);
    process.exit(1);
  }
}
