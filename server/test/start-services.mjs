import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startDatabase } from "../../launch/database.mjs";
import { freePort, Processes } from "../../launch/processes.mjs";
import { startStandIns } from "../../launch/services.mjs";

/** Starts a database and the stand-ins for each of the workers, so that tests at once do not meet. */
export default async function startAll({ maxWorkers }) {
  const processes = new Processes();
  const folders = Array.from({ length: maxWorkers }, () => mkdtempSync(join(tmpdir(), "vennet-test-")));
  globalThis.vennetTestServices = { processes, folders };
  const services = await Promise.all(
    folders.map(async (folder) => {
      const { settings } = await startStandIns(processes, folder);
      return { ...settings, DATABASE_URL: (await startDatabase(processes, folder, await freePort())).url };
    }),
  );
  process.env.VENNET_TEST_SERVICES = JSON.stringify(services);
}
