import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { execFile, spawn } from "node:child_process";
import { once } from "node:events";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startDatabase } from "./database.mjs";
import { freePort, Processes } from "./processes.mjs";

const folder = mkdtempSync(join(tmpdir(), "vennet-serve-"));
const processes = new Processes();
let url: string;

beforeAll(async () => {
  url = (await startDatabase(processes, folder, await freePort())).url;
});
afterAll(async () => {
  await processes.endAll();
  rmSync(folder, { recursive: true, force: true });
});

/** Runs one of the launch's commands to its end. */
function command(
  name: string,
  environment: Record<string, string>,
  ...given: string[]
): Promise<{ code: number; said: string }> {
  return new Promise((resolve) => {
    execFile(
      process.execPath,
      [join(import.meta.dirname, `${name}.mjs`), ...given],
      { env: { ...process.env, NODE_OPTIONS: "", ...environment } },
      (error, stdout, stderr) =>
        resolve({ code: error ? Number(error.code) : 0, said: `${stdout}${stderr}` }),
    );
  });
}

test("a server for strangers says what is doubtful, has no demo, is called by its own names, and is backed up", async () => {
  const port = await freePort();
  const child = spawn(process.execPath, [join(import.meta.dirname, "serve.mjs")], {
    env: {
      ...process.env,
      NODE_OPTIONS: "",
      DATABASE_URL: url,
      PORT: String(port),
      PUBLIC_ADDRESS: "https://vennet.test",
      LOG_LEVEL: "fatal",
      STANDIN_WEB_PORT: "",
    },
    stdio: ["ignore", "pipe", "pipe"],
  });
  let said = "";
  for (const stream of [child.stdout, child.stderr])
    stream.on("data", (data: Buffer) => (said += data.toString()));
  while (!said.includes("Vennet listens on")) {
    if (child.exitCode !== null) throw new Error(said);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  const api = `http://127.0.0.1:${port}/api`;
  expect((await fetch(`${api}/session/demo`, { method: "POST" })).status).toBe(404);
  const made = await fetch(`${api}/accounts`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ name: "Pell", email: "pell@authors.example", password: "four words of the sea" }),
  });
  expect(made.status).toBe(201);
  expect(made.headers.get("set-cookie")).toMatch(/; Secure/);

  const file = join(folder, "vennet.sql.gz");
  const backup = await command("backup", { DATABASE_URL: url }, file);
  expect(backup).toEqual({
    code: 0,
    said: expect.stringContaining("0 books, 0 links, 0 files, and was read back."),
  });
  const again = await command("backup", { DATABASE_URL: url }, file);
  expect(again).toEqual({ code: 1, said: `${file} is there already. Give another name.\n` });
  const refused = await command("restore", { DATABASE_URL: url }, file);
  expect(refused).toEqual({ code: 1, said: expect.stringContaining("The database is not empty") });
  const restored = await command(
    "restore",
    { DATABASE_URL: "", VENNET_DATA: join(folder, "restored") },
    file,
  );
  expect(restored).toEqual({ code: 0, said: expect.stringContaining("Restored from") });
  const invited = await command("invite", { DATABASE_URL: url, PUBLIC_ADDRESS: "https://vennet.test" });
  expect(invited.said).toMatch(/^https:\/\/vennet\.test\/sign-in#[\w-]{43}$/m);
  child.kill("SIGTERM");
  await once(child, "close");
  expect(said).toMatch(/^Doubtful: PROXIES is 0/m);
  expect(said).toMatch(/^Doubtful: REGISTRATION is open/m);
  expect(said).toMatch(/^Doubtful: BACKUP_FOLDER is not set/m);
  expect(said).not.toMatch(/Doubtful: (HOST|VENNET_SECURE_COOKIES|PUBLIC_ADDRESS)/);
});

test("wrong settings end the start with a line each, and nothing is started", async () => {
  const wrong = await command("serve", { DATABASE_URL: "", VENNET_DEMO: "1", STANDIN_WEB_PORT: "" });
  expect(wrong.code).toBe(1);
  expect(wrong.said.trim().split("\n")).toEqual([
    expect.stringMatching(/^DATABASE_URL is not set/),
    expect.stringMatching(/^VENNET_DEMO is 1/),
  ]);
  const setting = await command("serve", { DATABASE_URL: url, PUBLIC_ADDRESS: "vennet.test" });
  expect(setting).toEqual({
    code: 1,
    said: expect.stringMatching(/^PUBLIC_ADDRESS is “vennet.test”; it has to be/),
  });
});

test("what is no backup is told in one line", async () => {
  writeFileSync(join(folder, "notes.txt"), "Low water at nine.");
  const told = await command("restore", { DATABASE_URL: url }, join(folder, "notes.txt"));
  expect([told.code, told.said.trim().split("\n")]).toEqual([
    1,
    [expect.stringContaining("cannot be read to its end")],
  ]);
});
