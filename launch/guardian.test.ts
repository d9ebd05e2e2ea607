import { afterEach, expect, test } from "@jest/globals";
import { spawn, type ChildProcess } from "node:child_process";
import { randomUUID } from "node:crypto";
import { once } from "node:events";
import { existsSync, mkdtempSync, readdirSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as sleep } from "node:timers/promises";

const begun: ChildProcess[] = [];
afterEach(() => begun.splice(0).forEach((child) => child.kill("SIGKILL")));

/** How many processes have this in their environment. */
function count(mark: string): number {
  return readdirSync("/proc").filter((name) => {
    try {
      return (
        /^\d+$/.test(name) &&
        readFileSync(`/proc/${name}/environ`, "utf8").includes(mark) &&
        !readFileSync(`/proc/${name}/status`, "utf8").includes("State:\tZ")
      );
    } catch {
      // It ended while we looked.
      return false;
    }
  }).length;
}

test("however a run is ended, nothing that it began is left: not even what ends on no request", async () => {
  const id = randomUUID();
  const folder = mkdtempSync(join(tmpdir(), "vennet-guarded-"));
  const run = `
    const { spawn } = require("node:child_process");
    spawn(process.execPath, [${JSON.stringify(join(import.meta.dirname, "guardian.mjs"))}, ${JSON.stringify(id)}, ${JSON.stringify(folder)}], { stdio: ["pipe", "inherit", "inherit"], detached: true });
    const stubborn = "process.on('SIGTERM', () => undefined); setInterval(() => undefined, 1000); console.log('begun')";
    spawn(process.execPath, ["-e", stubborn], { stdio: "inherit", detached: true, env: { ...process.env, VENNET_TEST_RUN: ${JSON.stringify(id)} } });
    setInterval(() => undefined, 1000);
  `;
  const child = spawn(process.execPath, ["-e", run], {
    stdio: ["ignore", "pipe", "inherit"],
    env: { ...process.env, NODE_OPTIONS: "" },
  });
  begun.push(child);
  await once(child.stdout, "data");
  expect(count(`VENNET_TEST_RUN=${id}`)).toBe(1);
  child.kill("SIGKILL");
  while (count(`VENNET_TEST_RUN=${id}`) > 0 || existsSync(folder)) await sleep(100);
});

test("a run of the tests that is told to end leaves no process behind", async () => {
  const outer = process.env["VENNET_TEST_RUN"];
  const child = spawn(process.execPath, [join(import.meta.dirname, "test.mjs")], {
    stdio: ["ignore", "pipe", "inherit"],
    env: { ...process.env, NODE_OPTIONS: "" },
  });
  begun.push(child);
  let output = "";
  child.stdout.on("data", (data: Buffer) => (output += data.toString()));
  while (!output.includes("== types of the web application")) await sleep(50);
  const tool = () =>
    readdirSync("/proc").find((name) => {
      try {
        const environment = readFileSync(`/proc/${name}/environ`, "utf8");
        const own = /VENNET_TEST_RUN=([\w-]+)/.exec(environment)?.[1];
        const parent = /PPid:\t(\d+)/.exec(readFileSync(`/proc/${name}/status`, "utf8"))?.[1];
        return own !== undefined && own !== outer && parent === String(child.pid);
      } catch {
        return false;
      }
    });
  while (!tool()) await sleep(20);
  const id = /VENNET_TEST_RUN=([\w-]+)/.exec(readFileSync(`/proc/${tool()!}/environ`, "utf8"))![1]!;
  child.kill("SIGTERM");
  const [code] = (await once(child, "exit")) as [number];
  expect(code).toBe(1);
  expect(count(`VENNET_TEST_RUN=${id}`)).toBe(0);
});
