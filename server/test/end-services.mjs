import { rmSync } from "node:fs";

export default async function endServices() {
  const { processes, folders } = globalThis.vennetTestServices;
  await processes.endAll();
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
}
