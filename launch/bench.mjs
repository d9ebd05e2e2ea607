import { join } from "node:path";
import { build } from "./build.mjs";
import { installDebianPackages, toTest } from "./debian-packages.mjs";
import { LaunchError } from "./errors.mjs";
import { installNpmPackages, root, run } from "./install.mjs";

// `npm run bench`: each benchmark measures Vennet and what it is compared with in one run, and prints ratios.
try {
  installDebianPackages(toTest);
  installNpmPackages();
  build();
  run("node", [join(root, "bench/links.mjs")], "The benchmark of links failed.");
  run("node", [join(root, "bench/places.mjs")], "The benchmark of places failed.");
  run("node", [join(root, "bench/checks.mjs")], "The benchmark of checks failed.");
  run("node", [join(root, "bench/reach.mjs")], "The benchmark of reach runs failed.");
  run("node", [join(root, "bench/imports.mjs")], "The benchmark of imports failed.");
  run("node", [join(root, "bench/exports.mjs")], "The benchmark of exports failed.");
  run("node", [join(root, "bench/finished.mjs")], "The benchmark of finished files failed.");
} catch (error) {
  console.error(error instanceof LaunchError ? error.message : error);
  process.exit(1);
}
