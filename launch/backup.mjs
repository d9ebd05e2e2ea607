import { existsSync } from "node:fs";
import { resolve } from "node:path";
import { withDatabase } from "./one-database.mjs";

// `npm run backup -- FILE`: writes all that a Vennet holds into one file, while authors go on writing.

await withDatabase(async (url) => {
  const { makeBackup, toldContent, BackupError } = await import("../server/dist/operating/backup.js");
  const [given] = process.argv.slice(2);
  if (!given) throw new BackupError("usage", "Say where to: npm run backup -- FILE");
  const file = resolve(given);
  if (existsSync(file)) throw new BackupError("exists", `${file} is there already. Give another name.`);
  console.log(`${file} holds ${toldContent(await makeBackup(url, file))}, and was read back.`);
});
