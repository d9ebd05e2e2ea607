import { spawn, type ChildProcess } from "node:child_process";
import { once } from "node:events";
import { join } from "node:path";
import { freePort } from "../../launch/processes.mjs";
import { Client } from "./test-server.ts";

/** A server in a process of its own, as it was built, so that it can be killed. */
export interface ServerProcess {
  client: () => Client;
  /** Ends it at once, without a chance to put anything in order. */
  kill: () => Promise<void>;
  stop: () => Promise<void>;
}

/** Starts a server process with the tests' database and stand-ins, and waits until it listens. */
export async function startServerProcess(environment: Record<string, string> = {}): Promise<ServerProcess> {
  const port = await freePort();
  const child: ChildProcess = spawn(process.execPath, [join(import.meta.dirname, "../bundle/main.js")], {
    stdio: ["ignore", "inherit", "inherit", "ipc"],
    env: {
      ...process.env,
      NODE_OPTIONS: "",
      PORT: String(port),
      LOG_LEVEL: "error",
      REACH_TIMEOUT_MS: "6000",
      REACH_RETRY_MS: "100",
      SIGN_UPS_PER_HOUR: "1000000",
      ...environment,
    },
  });
  await new Promise<void>((resolve, reject) => {
    child.once("message", () => resolve());
    child.once("exit", (code) => reject(new Error(`The server did not start: exit code ${code}.`)));
  });
  const end = async (signal: NodeJS.Signals): Promise<void> => {
    if (child.exitCode !== null || child.signalCode !== null) return;
    child.kill(signal);
    await once(child, "exit");
  };
  return {
    client: () => new Client(`http://127.0.0.1:${port}`),
    kill: () => end("SIGKILL"),
    stop: () => end("SIGTERM"),
  };
}
