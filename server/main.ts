import { once } from "node:events";
import { AccountsService } from "./accounts/accounts.service.ts";
import { makeApplication } from "./application.ts";
import { Settings } from "./settings.ts";

let port = "";
let host = "";
try {
  // Whoever starts this process may let it load before all that it is told is known.
  if (process.env["SETTINGS_FOLLOW"] === "1") Object.assign(process.env, (await once(process, "message"))[0]);
  const settings = new Settings();
  port = String(settings.port);
  host = settings.host;
  const app = await makeApplication(settings);
  if (settings.demo) await app.get(AccountsService).demoAccount();
  await app.listen(settings.port, settings.host);
  process.send?.("listening");
  // Whoever started this process is gone without a word.
  process.on("disconnect", () => process.kill(process.pid, "SIGTERM"));
} catch (error) {
  const { code, message } = error as NodeJS.ErrnoException;
  const reason =
    code === "EADDRINUSE"
      ? `Port ${port} is taken by another program. Set PORT to a free one.`
      : code === "ENOTFOUND" || code === "EADDRNOTAVAIL"
        ? `HOST is “${host}”, which is not an address of this machine. Set it to one, or leave it out.`
        : code === "ECONNREFUSED"
          ? "The database does not answer."
          : `The server could not start: ${message}`;
  process.stderr.write(`${reason}\n`);
  process.exit(1);
}
