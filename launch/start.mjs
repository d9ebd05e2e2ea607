import { join } from "node:path";
import { build } from "./build.mjs";
import { takeDataFolder } from "./database.mjs";
import { installDebianPackages, toRun } from "./debian-packages.mjs";
import { LaunchError } from "./errors.mjs";
import { installNpmPackages, root } from "./install.mjs";
import { endOnSignals, freePort, isPortFree, Processes } from "./processes.mjs";
import { startServices } from "./services.mjs";
import { keepRunning } from "./supervise.mjs";

// `npm start`: from a fresh clone to a running Vennet.

const folder = process.env.VENNET_DATA ?? join(root, ".vennet/data");
const processes = new Processes();
let giveBack = () => undefined;

const stop = endOnSignals(processes, () => giveBack());

try {
  checkPort();
  giveBack = takeDataFolder(folder);
  installDebianPackages(toRun);
  installNpmPackages();
  build();
  const keep = (begin) => keepRunning(processes, begin);
  const { address, environment } = await startServices(processes, folder, await choosePort(), {}, keep);
  const { loadDemo } = await import("../demo/load.mjs");
  const isNew = await loadDemo(address);
  if (isNew) console.log("The demo book has been brought in. It is exported and checked in the meantime.");
  console.log(`\nVennet is at ${address}`);
  console.log(
    "Demo sign-in: one press on the sign-in page, or walker@hesterley.example with the password low-tide-at-nine",
  );
  console.log("Ctrl-C ends it.");
  if (isNew) {
    const { liveWithDemo } = await import("../demo/live.mjs");
    await liveWithDemo(address, `http://127.0.0.1:${environment.STANDIN_WEB_PORT}`).catch((error) =>
      console.error(`The demo book could not be exported and checked: ${error.message}`),
    );
  }
} catch (error) {
  console.error(error instanceof LaunchError ? error.message : error);
  await stop(1);
}

/** A port that is none is told before anything is done. */
function checkPort() {
  const asked = process.env.PORT ?? "4600";
  if (/^\d+$/.test(asked) && Number(asked) >= 1 && Number(asked) <= 65_535) return;
  throw new LaunchError(
    "port",
    `PORT is “${asked}”; it has to be a whole number from 1 to 65535. Set it to one, or leave it out.`,
  );
}

/** The port that was asked for has to be free; the default one may give way to another. */
async function choosePort() {
  const asked = process.env.PORT;
  const port = Number(asked ?? 4600);
  if (await isPortFree(port)) return port;
  if (asked !== undefined) {
    throw new LaunchError(
      "port",
      `Port ${port} is taken by another program. Set PORT to a free one, or leave it out.`,
    );
  }
  const other = await freePort();
  console.log(`Port ${port} is taken by another program, so Vennet uses ${other}.`);
  return other;
}
