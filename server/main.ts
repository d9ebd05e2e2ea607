import { AccountsService } from "./accounts/accounts.service.ts";
import { makeApplication } from "./application.ts";
import { Settings } from "./settings.ts";

const settings = new Settings();
try {
  const app = await makeApplication(settings);
  if (settings.demo) await app.get(AccountsService).demoAccount();
  await app.listen(settings.port, "127.0.0.1");
  process.send?.("listening");
  // Whoever started this process is gone without a word.
  process.on("disconnect", () => process.kill(process.pid, "SIGTERM"));
} catch (error) {
  const { code, message } = error as NodeJS.ErrnoException;
  const reason =
    code === "EADDRINUSE"
      ? `Port ${settings.port} is taken by another program. Set PORT to a free one.`
      : code === "ECONNREFUSED"
        ? "The database does not answer."
        : `The server could not start: ${message}`;
  process.stderr.write(`${reason}\n`);
  process.exit(1);
}
