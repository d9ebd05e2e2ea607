import { join } from "node:path";
import { build } from "./build.mjs";
import { installDebianPackages, toTest } from "./debian-packages.mjs";
import { LaunchError } from "./errors.mjs";
import { installNpmPackages, root, run } from "./install.mjs";

const benchmarks = [
  ["editor", "the editor"],
  ["links", "links"],
  ["long-lists", "long lists"],
  ["many-chapters", "many chapters"],
  ["places", "places"],
  ["checks", "checks"],
  ["growth", "how work grows with a chapter"],
  ["authors", "authors at once"],
  ["house", "a house of many books"],
  ["reach", "reach runs"],
  ["lanes", "lanes of hosts"],
  ["imports", "imports"],
  ["exports", "exports"],
  ["beside", "the pages beside the text"],
  ["walk", "walks"],
  ["finished", "finished files"],
  ["first-page", "finished files on the screen"],
];

// `npm run bench`: each benchmark measures Vennet and what it is compared with in one run, and prints ratios.
try {
  installDebianPackages(toTest);
  installNpmPackages();
  build();
  for (const [name, of] of benchmarks) {
    run("node", [join(root, `bench/${name}.mjs`)], `The benchmark of ${of} failed.`);
  }
} catch (error) {
  console.error(error instanceof LaunchError ? error.message : error);
  process.exit(1);
}
