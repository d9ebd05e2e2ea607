import { readFileSync } from "node:fs";
import { join } from "node:path";
import { startDatabase } from "./database.mjs";
import { LaunchError } from "./errors.mjs";
import { root } from "./install.mjs";
import { freePort } from "./processes.mjs";

/**
 * Starts the stand-ins; in a folder where they ran before, with the certificates that they had.
 * @param ports where they listen; by themselves they find free ones
 * @returns their entry among the processes, their ports, and the settings with which the server finds them
 */
export async function startStandIns(processes, folder, { httpPort = 0, tlsPort = 0, mailPort = 0 } = {}) {
  const entry = processes.start(
    "the stand-ins",
    process.execPath,
    [join(root, "standins/dist/main.js"), folder, String(httpPort), String(tlsPort), String(mailPort)],
    {
      stdio: ["ignore", "inherit", "inherit", "ipc"],
    },
  );
  await listening(entry);
  const told = JSON.parse(readFileSync(join(folder, "stand-ins.json"), "utf8"));
  const settings = {
    STANDIN_WEB_PORT: String(told.httpPort),
    STANDIN_WEB_TLS_PORT: String(told.tlsPort),
    STANDIN_WEB_CA: told.authorityFile,
    SMTP_URL: `smtp://127.0.0.1:${told.mailPort}`,
  };
  return { ...entry, ports: told, settings };
}

/**
 * Starts the database, the stand-ins and, with what these tell, the server, and waits until that listens.
 * @param run starts a service by a function that begins it, and may begin it again when it has ended
 */
export async function startServices(processes, folder, port, settings = {}, run = (begin) => begin()) {
  // It loads its modules while the others start.
  let loading = loadServer(processes);
  const databasePort = await freePort();
  let ports = {};
  const [database, standIns] = await Promise.all([
    run(() => startDatabase(processes, folder, databasePort)),
    run(async () => {
      const started = await startStandIns(processes, folder, ports);
      ports = started.ports;
      return started;
    }),
  ]);
  const environment = {
    ...process.env,
    PORT: String(port),
    DATABASE_URL: database.url,
    VENNET_DATA_FOLDER: folder,
    VENNET_DEMO: "1",
    LOG_LEVEL: process.env.LOG_LEVEL ?? "warn",
    ...standIns.settings,
    ...settings,
  };
  const server = await run(() => {
    const first = loading ?? undefined;
    loading = null;
    return startServer(processes, environment, first);
  });
  return { address: `http://${reachableAs(environment.HOST)}:${port}`, environment, pid: server.child.pid };
}

/**
 * Starts the server with these settings, and waits until it listens.
 * @param entry its process, where that has been begun
 */
export async function startServer(processes, settings, entry = loadServer(processes)) {
  // Where it has ended by now, `listening` tells.
  entry.child.send(settings, () => undefined);
  await listening(entry);
  return entry;
}

/** Begins the server's process, which loads what it needs, and waits for its settings. */
function loadServer(processes) {
  return processes.start("the server", process.execPath, [join(root, "server/bundle/main.js")], {
    stdio: ["ignore", "inherit", "inherit", "ipc"],
    env: { ...process.env, SETTINGS_FOLLOW: "1" },
  });
}

/** By which name a server that listens on a host is reached from this machine. */
function reachableAs(host) {
  if (!host || host === "0.0.0.0" || host === "::") return "127.0.0.1";
  return host.includes(":") ? `[${host}]` : host;
}

async function listening({ name, child, exited }) {
  const first = await Promise.race([
    new Promise((resolve) => child.once("message", () => resolve("listening"))),
    exited.then(() => "ended"),
  ]);
  if (first === "ended")
    throw new LaunchError("service", `It was not possible to start ${name}. What it said stands above.`);
}
