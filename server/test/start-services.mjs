import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startDatabase } from "../../launch/database.mjs";
import { freePort, Processes } from "../../launch/processes.mjs";
import { startStandIns } from "../../launch/services.mjs";

/** Starts a database and the stand-ins of the tests' own, and tells the tests where they are. */
export default async function startServices() {
  const folder = mkdtempSync(join(tmpdir(), "vennet-test-"));
  const processes = new Processes();
  globalThis.vennetTestServices = { processes, folder };
  process.env.DATABASE_URL = (await startDatabase(processes, folder, await freePort())).url;
  Object.assign(process.env, (await startStandIns(processes, folder)).settings);
}
