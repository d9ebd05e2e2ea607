import { expect, test } from "@jest/globals";
import { spawn } from "node:child_process";
import { once } from "node:events";
import { join } from "node:path";

const many = 300;

/** The ports that a process of its own is given, one after the other; it stays until all have theirs. */
async function portsOfProcess(): Promise<{ ports: string[]; end: () => Promise<unknown> }> {
  const module = JSON.stringify(join(import.meta.dirname, "processes.mjs"));
  const script = `import { freePort } from ${module};
    for (let i = 0; i < ${many}; i++) console.log(await freePort());
    process.stdout.write("all\\n");
    process.stdin.resume().once("end", () => process.exit());`;
  const child = spawn(process.execPath, ["--input-type=module", "--eval", script], {
    stdio: ["pipe", "pipe", "inherit"],
  });
  let said = "";
  for await (const chunk of child.stdout) {
    said += String(chunk);
    if (said.includes("all")) break;
  }
  return {
    ports: said.split("\n").filter((line) => /^\d+$/.test(line)),
    end: async () => {
      child.stdin.end();
      return child.exitCode ?? (await once(child, "exit"));
    },
  };
}

test("no two processes are given the same port", async () => {
  const all = await Promise.all([portsOfProcess(), portsOfProcess()]);
  const ports = all.flatMap((one) => one.ports);
  expect(ports).toHaveLength(2 * many);
  expect(new Set(ports).size).toBe(2 * many);
  await Promise.all(all.map(({ end }) => end()));
});
