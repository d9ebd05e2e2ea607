import { fork } from "node:child_process";
import { once } from "node:events";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freePort, Processes } from "../launch/processes.mjs";
import { startServices } from "../launch/services.mjs";
import { peakMemory } from "./memory.mjs";

const addresses = Array.from(
  { length: 5000 },
  (_, i) => `http://stone-${(i % 250) + 1}.hesterley.test/waymark/${i}`,
);
const concurrency = 32;
const folder = mkdtempSync(join(tmpdir(), "vennet-bench-"));
const processes = new Processes();
try {
  const { address, environment, pid } = await startServices(processes, folder, await freePort(), {
    REACH_CONCURRENCY: String(concurrency),
  });
  const cookie = (await fetch(`${address}/api/session/demo`, { method: "POST" })).headers
    .get("set-cookie")
    .split(";")[0];
  const form = new FormData();
  form.set("manuscript", new Blob([`# All\n\n${addresses.map((one) => `[w](${one})`).join(" ")}`]), "all.md");
  const { book } = await (
    await fetch(`${address}/api/books/import`, { method: "POST", headers: { cookie }, body: form })
  ).json();

  const bare = async () => {
    const child = fork(join(import.meta.dirname, "bare-loop.mjs"), { stdio: "inherit" });
    child.send({ addresses, concurrency, port: environment.STANDIN_WEB_PORT });
    const [{ ms }] = await once(child, "message");
    const memory = peakMemory(child.pid);
    child.kill();
    return { ms, memory };
  };
  const run = async () => {
    const started = performance.now();
    const job = await (
      await fetch(`${address}/api/books/${book.id}/reach`, { method: "POST", headers: { cookie } })
    ).json();
    const events = await (
      await fetch(`${address}/api/jobs/${job.id}/events`, { headers: { cookie } })
    ).text();
    if (!events.includes('"message":"5000 sound"'))
      throw new Error(`The run did not find all sound: ${events.slice(-300)}`);
    return performance.now() - started;
  };
  // In turns, so that a machine that is busy for a while is so for both; the best of each counts.
  let best = { bare: Infinity, run: Infinity };
  let bareMemory = 0;
  for (let turn = 0; turn < 3; turn++) {
    const loop = await bare();
    bareMemory = Math.max(bareMemory, loop.memory);
    best = { bare: Math.min(best.bare, loop.ms), run: Math.min(best.run, await run()) };
  }
  const rate = (ms) => `${Math.round(5000 / (ms / 1000))} a second`;
  console.log(
    `Reach run over 5,000 addresses at ${concurrency} at a time, with its evidence kept in the database`,
  );
  console.log(
    `  Vennet ${rate(best.run)}, a bare loop ${rate(best.bare)}: ratio ${(best.bare / best.run).toFixed(2)} (aim: at least 0.7)`,
  );
  console.log(`  peak memory: server ${peakMemory(pid)} MB, bare loop ${bareMemory} MB`);
} finally {
  await processes.endAll();
  rmSync(folder, { recursive: true, force: true });
}
