import { spawn } from "node:child_process";
import { randomInt } from "node:crypto";
import { rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { LaunchError } from "./errors.mjs";

/**
 * The processes that one launch has started. They are in groups of their own, so that Ctrl-C reaches the
 * launch alone, which then ends them one after the other, the last begun first.
 */
export class Processes {
  #running = [];
  #ending = null;

  /** Whether everything is being ended. */
  get isEnding() {
    return this.#ending !== null;
  }

  /** @param {string} name what to call it in messages */
  start(name, command, args, options = {}) {
    if (this.#ending) throw new LaunchError("ending", `All is being ended, so ${name} is not started.`);
    const child = spawn(command, args, {
      stdio: ["ignore", "inherit", "inherit"],
      ...options,
      detached: true,
    });
    const exited = new Promise((resolve) => {
      child.once("exit", (code, signal) => resolve({ code, signal }));
      child.once("error", (error) => resolve({ code: null, signal: null, error }));
    });
    const entry = { name, child, exited };
    this.#running.push(entry);
    void exited.then(() => (this.#running = this.#running.filter((other) => other !== entry)));
    return entry;
  }

  /** Ends everything that was started and is still there. */
  endAll() {
    return (this.#ending ??= (async () => {
      for (const { child, exited } of [...this.#running].reverse()) {
        signal(child, "SIGTERM");
        const timer = setTimeout(() => signal(child, "SIGKILL"), 10_000);
        await exited;
        clearTimeout(timer);
      }
    })());
  }
}

/**
 * Ends a launch in order when it is told to end from outside.
 * @returns the function that ends it from inside, with an exit code
 */
export function endOnSignals(processes, giveBack) {
  const end = async (code) => {
    await processes.endAll();
    giveBack();
    process.exit(code);
  };
  for (const name of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(name, () => void end(0));
  return end;
}

function signal(child, name) {
  try {
    if (child.pid !== undefined) process.kill(-child.pid, name);
  } catch (error) {
    if (error.code !== "ESRCH") throw error;
  }
}

// Below those that the system gives to outgoing connections (Linux: ip_local_port_range, from 32768 on), one of which
// might take it before whoever asked listens on it.
const [firstPort, lastPort] = [20_000, 32_000];
const mostTries = 100;

/** A port of the loopback interface that is free now, and that nothing takes by chance until this process ends. */
export async function freePort() {
  for (let tries = 0; tries < mostTries; tries++) {
    const port = randomInt(firstPort, lastPort);
    if (claim(port) && (await isPortFree(port))) return port;
  }
  throw new Error(`Of ${mostTries} ports between ${firstPort} and ${lastPort} none is free.`);
}

/** The files by which this process says which ports it has been given. */
const claims = new Set();
process.once("exit", () => claims.forEach((file) => rmSync(file, { force: true })));

/**
 * Whether no other process has been given a port: between then and when somebody listens on it, it is free for all to see.
 */
function claim(port) {
  const file = join(tmpdir(), `vennet-port-${port}`);
  try {
    writeFileSync(file, String(process.pid), { flag: "wx" });
  } catch (error) {
    if (error.code !== "EEXIST") throw error;
    return false;
  }
  claims.add(file);
  return true;
}

/** Whether a port of the loopback interface can be listened on. */
export function isPortFree(port) {
  return new Promise((resolve) => {
    const server = createServer();
    server.once("error", () => resolve(false));
    server.listen(port, "127.0.0.1", () => server.close(() => resolve(true)));
  });
}

/** Whether a process with this id is there. */
export function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === "EPERM";
  }
}
