import { join } from "node:path";
import { build } from "./build.mjs";
import { runningDatabase, startDatabase, takeDataFolder } from "./database.mjs";
import { installDebianPackages, toRun } from "./debian-packages.mjs";
import { installNpmPackages, root } from "./install.mjs";
import { endOnSignals, freePort, Processes } from "./processes.mjs";

/**
 * Does something with a Vennet's database: the one at `DATABASE_URL`, else that of the data folder, which is started
 * for as long where it does not run. An error becomes one line.
 */
export async function withDatabase(work) {
  const folder = process.env.VENNET_DATA ?? join(root, ".vennet/data");
  const processes = new Processes();
  let giveBack = () => undefined;
  const stop = endOnSignals(processes, () => giveBack());
  try {
    installDebianPackages(toRun);
    installNpmPackages();
    build();
    let url = process.env.DATABASE_URL ?? runningDatabase(folder);
    if (!url) {
      giveBack = takeDataFolder(folder);
      ({ url } = await startDatabase(processes, folder, await freePort()));
    }
    await work(url);
    await stop(0);
  } catch (error) {
    console.error(error.code === undefined ? error : error.message);
    await stop(1);
  }
}
