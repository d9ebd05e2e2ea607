import { readFileSync } from "node:fs";
import { join } from "node:path";
import { startDatabase } from "./database.mjs";
import { LaunchError } from "./errors.mjs";
import { root } from "./install.mjs";

/** Starts the stand-ins and says with which settings the server finds them. */
export async function startStandIns(processes, folder) {
  const started = processes.start(
    "the stand-ins",
    process.execPath,
    [join(root, "standins/dist/main.js"), folder],
    {
      stdio: ["ignore", "inherit", "inherit", "ipc"],
    },
  );
  await listening(started);
  const { httpPort, tlsPort, authorityFile } = JSON.parse(
    readFileSync(join(folder, "stand-ins.json"), "utf8"),
  );
  return {
    STANDIN_WEB_PORT: String(httpPort),
    STANDIN_WEB_TLS_PORT: String(tlsPort),
    STANDIN_WEB_CA: authorityFile,
  };
}

/** Starts database, stand-ins and server, in this order, and waits until the server listens. */
export async function startServices(processes, folder, port, settings = {}) {
  const databaseUrl = await startDatabase(processes, folder);
  const standIns = await startStandIns(processes, folder);
  const environment = {
    ...process.env,
    PORT: String(port),
    DATABASE_URL: databaseUrl,
    VENNET_DEMO: "1",
    LOG_LEVEL: process.env.LOG_LEVEL ?? "warn",
    ...standIns,
    ...settings,
  };
  const server = processes.start("the server", process.execPath, [join(root, "server/dist/main.js")], {
    stdio: ["ignore", "inherit", "inherit", "ipc"],
    env: environment,
  });
  await listening(server);
  return { address: `http://${reachableAs(environment.HOST)}:${port}`, environment, pid: server.child.pid };
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
