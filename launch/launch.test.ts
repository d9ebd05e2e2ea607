import { afterAll, describe, expect, test } from "@jest/globals";
import { spawn, type ChildProcess } from "node:child_process";
import { once } from "node:events";
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer, type AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freePort, isPortFree } from "./processes.mjs";

const folders: string[] = [];
const folder = (): string => {
  folders.push(mkdtempSync(join(tmpdir(), "vennet-launch-")));
  return folders.at(-1)!;
};
afterAll(() => folders.forEach((one) => rmSync(one, { recursive: true, force: true })));

interface Start {
  child: ChildProcess;
  output: () => string;
  ended: Promise<number | null>;
}

function start(environment: Record<string, string>): Start {
  const child = spawn(process.execPath, [join(import.meta.dirname, "start.mjs")], {
    env: { ...process.env, NODE_OPTIONS: "", ...environment },
    stdio: ["ignore", "pipe", "pipe"],
  });
  let text = "";
  child.stdout.on("data", (data: Buffer) => (text += data.toString()));
  child.stderr.on("data", (data: Buffer) => (text += data.toString()));
  // A process that has ended may still have words on the way; a stream that is closed has none.
  return { child, output: () => text, ended: once(child, "close").then(([code]) => code as number | null) };
}

async function untilItSays(run: Start, words: string): Promise<void> {
  while (!run.output().includes(words)) {
    if (run.child.exitCode !== null) throw new Error(`It never said “${words}”:\n${run.output()}`);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

interface Found {
  pid: number;
  parent: number;
  command: string;
}

function allProcesses(): Found[] {
  const found: Found[] = [];
  for (const pid of readdirSync("/proc").filter((name) => /^\d+$/.test(name))) {
    try {
      const command = readFileSync(`/proc/${pid}/cmdline`, "utf8").replaceAll("\0", " ");
      const [, parent] = /^PPid:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, "utf8"))!;
      found.push({ pid: Number(pid), parent: Number(parent), command });
    } catch {
      // It ended while we looked.
    }
  }
  return found;
}

/** All processes whose command line names a folder. */
const processesIn = (place: string): Found[] =>
  allProcesses().filter(({ command }) => command.includes(place));

/** Ends one of the services that a start has begun, as a lack of memory does. */
function killService(run: Start, program: string): void {
  const service = allProcesses().find(
    ({ parent, command }) => parent === run.child.pid && command.includes(program),
  );
  process.kill(service!.pid, "SIGKILL");
}

describe("npm start", () => {
  test("starts everything, keeps a second start out, and Ctrl-C ends all that it began", async () => {
    const place = folder();
    const port = String(await freePort());
    const first = start({ VENNET_DATA: place, PORT: port });
    await untilItSays(first, `Vennet is at http://127.0.0.1:${port}`);
    await untilItSays(first, "walker@hesterley.example");
    expect(first.output()).toContain("The demo book has been brought in.");
    expect(processesIn(place).some(({ command }) => command.includes("mariadbd"))).toBe(true);

    const second = start({ VENNET_DATA: place, PORT: String(await freePort()) });
    expect(await second.ended).toBe(1);
    expect(second.output().trim().split("\n")).toEqual([
      expect.stringContaining("is in use by another start of Vennet"),
    ]);
    expect((await fetch(`http://127.0.0.1:${port}/api/health`)).status).toBe(200);

    first.child.kill("SIGINT");
    expect(await first.ended).toBe(0);
    expect(processesIn(place)).toEqual([]);
    expect(await isPortFree(Number(port))).toBe(true);

    // What was there stays there.
    const again = start({ VENNET_DATA: place, PORT: port });
    await untilItSays(again, "Vennet is at");
    expect(again.output()).not.toContain("brought in");
    again.child.kill("SIGTERM");
    await again.ended;
  });

  test("after a start that was killed, the next one works", async () => {
    const place = folder();
    const first = start({ VENNET_DATA: place, PORT: String(await freePort()) });
    await untilItSays(first, "Vennet is at");
    first.child.kill("SIGKILL");
    // Its services outlive it, and keep its streams.
    await once(first.child, "exit");
    const next = start({ VENNET_DATA: place, PORT: String(await freePort()) });
    await untilItSays(next, "Vennet is at");
    next.child.kill("SIGINT");
    expect(await next.ended).toBe(0);
    expect(processesIn(place)).toEqual([]);
  });

  test("starts again what has ended, says so, and the server finds it where it was", async () => {
    const place = folder();
    const port = String(await freePort());
    const run = start({ VENNET_DATA: place, PORT: port });
    await untilItSays(run, "Vennet is at");
    const answered = async (): Promise<void> => {
      while ((await fetch(`http://127.0.0.1:${port}/api/health`).catch(() => null))?.status !== 200)
        await new Promise((resolve) => setTimeout(resolve, 50));
    };
    killService(run, "mariadbd");
    await untilItSays(run, "Ended unexpectedly (SIGKILL): the database.");
    await untilItSays(run, "Running again: the database.");
    await answered();
    killService(run, "standins/dist/main.js");
    await untilItSays(run, "Running again: the stand-ins.");
    killService(run, "server/bundle/main.js");
    await untilItSays(run, "Running again: the server.");
    await answered();
    run.child.kill("SIGTERM");
    expect(await run.ended).toBe(0);
    expect(processesIn(place)).toEqual([]);
    expect(await isPortFree(Number(port))).toBe(true);
  });

  test("says in one line that its port is taken", async () => {
    const other = createServer();
    await new Promise<void>((resolve) => other.listen(0, "127.0.0.1", resolve));
    const { port } = other.address() as AddressInfo;
    const run = start({ VENNET_DATA: folder(), PORT: String(port) });
    expect(await run.ended).toBe(1);
    expect(run.output().trim()).toBe(
      `Port ${port} is taken by another program. Set PORT to a free one, or leave it out.`,
    );
    other.close();
  });

  test("says in one line that a port is none", async () => {
    const run = start({ VENNET_DATA: folder(), PORT: "tide" });
    expect(await run.ended).toBe(1);
    expect(run.output().trim()).toBe(
      "PORT is “tide”; it has to be a whole number from 1 to 65535. Set it to one, or leave it out.",
    );
  });

  test("says in one line that its data folder cannot be written to", async () => {
    const file = join(folder(), "a-file");
    writeFileSync(file, "");
    const run = start({ VENNET_DATA: join(file, "data"), PORT: String(await freePort()) });
    expect(await run.ended).toBe(1);
    expect(run.output().trim().split("\n")).toEqual([
      expect.stringContaining(
        "cannot be written to (ENOTDIR). Make it so, or set VENNET_DATA to another folder.",
      ),
    ]);
  });

  test("says which host is none of this machine", async () => {
    const run = start({ VENNET_DATA: folder(), PORT: String(await freePort()), HOST: "203.0.113.9" });
    expect(await run.ended).toBe(1);
    expect(run.output()).toContain("HOST is “203.0.113.9”, which is not an address of this machine.");
  });

  test("says in one line that the database won't start, and why", async () => {
    const place = folder();
    mkdirSync(join(place, "mariadb/mysql"), { recursive: true });
    writeFileSync(join(place, "mariadb/ibdata1"), "no database");
    // The usual port may be another Vennet's, which would be told too.
    const run = start({ VENNET_DATA: place, PORT: String(await freePort()) });
    expect(await run.ended).toBe(1);
    expect(run.output().trim().split("\n")).toEqual([
      expect.stringMatching(/^The database did not start\. .*mariadb\.log says: \S/),
    ]);
    expect(processesIn(place)).toEqual([]);
  });
});
