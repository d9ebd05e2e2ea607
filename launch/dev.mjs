import { join } from "node:path";
import { build } from "./build.mjs";
import { startDatabase, takeDataFolder } from "./database.mjs";
import { installDebianPackages, toRun } from "./debian-packages.mjs";
import { LaunchError } from "./errors.mjs";
import { installNpmPackages, root } from "./install.mjs";
import { endOnSignals, freePort, Processes } from "./processes.mjs";
import { startStandIns } from "./services.mjs";

// `npm run dev`: the compiler, the server and the web application all watch their sources.

const folder = process.env.VENNET_DATA ?? join(root, ".vennet/data");
const processes = new Processes();
let giveBack = () => undefined;

const stop = endOnSignals(processes, () => giveBack());

try {
  giveBack = takeDataFolder(folder);
  installDebianPackages(toRun);
  installNpmPackages();
  build();
  const { url: databaseUrl } = await startDatabase(processes, folder, await freePort());
  const { settings: standIns } = await startStandIns(processes, folder);
  const port = String(await freePort());
  const env = {
    ...process.env,
    PORT: port,
    DATABASE_URL: databaseUrl,
    VENNET_DEMO: "1",
    LOG_LEVEL: "info",
    ...standIns,
  };
  const npx = (name, ...args) => processes.start(name, "npx", ["--no-install", ...args], { cwd: root, env });
  npx("the compiler", "tsc", "-b", "--watch", "--preserveWatchOutput", "core", "server");
  processes.start("the server", process.execPath, ["--watch", join(root, "server/dist/main.js")], { env });
  npx("the web application", "vite", "web");
  console.log(
    `The server is at http://127.0.0.1:${port}; open the address that Vite names. Ctrl-C ends all.`,
  );
} catch (error) {
  console.error(error instanceof LaunchError ? error.message : error);
  await stop(1);
}
