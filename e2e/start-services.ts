import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { loadDemo } from "../demo/load.mjs";
import { freePort, Processes } from "../launch/processes.mjs";
import { startServices } from "../launch/services.mjs";

/** Starts a whole Vennet of the tests' own, with the demo book in it. */
export default async function startAll(): Promise<() => Promise<void>> {
  const folder = mkdtempSync(join(tmpdir(), "vennet-e2e-"));
  const processes = new Processes();
  const { address, environment } = await startServices(processes, folder, await freePort(), {
    REACH_TIMEOUT_MS: "1500",
    REACH_RETRY_MS: "200",
  });
  await loadDemo(address);
  process.env["VENNET_URL"] = address;
  process.env["VENNET_SERVER_ENVIRONMENT"] = JSON.stringify(environment);
  return async () => {
    await processes.endAll();
    rmSync(folder, { recursive: true, force: true });
  };
}
