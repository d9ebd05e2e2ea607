import { existsSync } from "node:fs";
import { resolve } from "node:path";
import { withDatabase } from "./one-database.mjs";

// `npm run restore -- FILE`: puts a backup into an empty data folder, or an empty database.

await withDatabase(async (url) => {
  const { restoreBackup, toldContent, BackupError } = await import("../server/dist/operating/backup.js");
  const [given] = process.argv.slice(2);
  if (!given) throw new BackupError("usage", "Say which: npm run restore -- FILE");
  const file = resolve(given);
  if (!existsSync(file)) throw new BackupError("no-file", `There is no ${file}.`);
  console.log(`Restored from ${file}: ${toldContent(await restoreBackup(url, file))}.`);
});
