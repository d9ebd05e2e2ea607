import { rmSync } from "node:fs";

export default async function endServices() {
  const { processes, folder } = globalThis.vennetTestServices;
  await processes.endAll();
  rmSync(folder, { recursive: true, force: true });
}
