import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { FullConfig } from "@playwright/test";
import { loadDemo } from "../demo/load.mjs";
import { freePort, Processes } from "../launch/processes.mjs";
import { startServices } from "../launch/services.mjs";

/** A Vennet of the tests' own. */
export interface TestVennet {
  address: string;
  /** With which its server was started. */
  environment: NodeJS.ProcessEnv;
}

const variable = "VENNET_OF_TESTS";

/** Starts one whole Vennet for each worker, with the demo book in it, so that tests at once do not meet. */
export default async function startAll({ workers }: FullConfig): Promise<() => Promise<void>> {
  const folders: string[] = [];
  const processes = new Processes();
  const start = async (): Promise<TestVennet> => {
    const folder = mkdtempSync(join(tmpdir(), "vennet-e2e-"));
    folders.push(folder);
    const { address, environment } = await startServices(processes, folder, await freePort(), {
      REACH_TIMEOUT_MS: "4000",
      REACH_RETRY_MS: "200",
      DRIVE_TIMEOUT_MS: "60000",
      SIGN_UPS_PER_HOUR: "1000000",
    });
    await loadDemo(address);
    return { address, environment };
  };
  const started = await Promise.all(Array.from({ length: workers }, start));
  process.env[variable] = JSON.stringify(started);
  return async () => {
    await processes.endAll();
    for (const folder of folders) rmSync(folder, { recursive: true, force: true });
  };
}

/** The Vennet of one of the workers. */
export function vennetOf(worker: number): TestVennet {
  return (JSON.parse(process.env[variable]!) as TestVennet[])[worker]!;
}
