import { fork } from "node:child_process";
import { once } from "node:events";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freePort, Processes } from "../launch/processes.mjs";
import { startServices } from "../launch/services.mjs";
import { largeWeb, defaultLargeWeb } from "../standins/dist/web/large-web.js";
import { memoryNow, peakMemory } from "./memory.mjs";
import { Spread } from "./spread.mjs";

// A run over a generated web of 10,000 pages on 300 hosts: with its politeness beside the shortest time that this
// allows, and without it beside a bare loop over the same pages. Then memory while 100,000 addresses pass.

const concurrency = 64;
const gapMs = 100;
const lanes = 2;
const linksInChapter = 1_000;
const pagesOf = (web) => web.flatMap(({ name, pages }) => pages.map((page) => `http://${name}${page}`));

/** Vennet with one book of these addresses, and what the benchmark does with it. */
async function withVennet(addresses, settings, work) {
  const folder = mkdtempSync(join(tmpdir(), "vennet-bench-"));
  const processes = new Processes();
  try {
    const { address, environment, pid } = await startServices(processes, folder, await freePort(), {
      REACH_CONCURRENCY: String(concurrency),
      ...settings,
    });
    const cookie = (await fetch(`${address}/api/session/demo`, { method: "POST" })).headers
      .get("set-cookie")
      .split(";")[0];
    const call = async (method, path, body) => {
      const answer = await fetch(`${address}/api${path}`, {
        method,
        headers: { cookie, ...(body ? { "content-type": "application/json" } : {}) },
        ...(body ? { body: JSON.stringify(body) } : {}),
      });
      if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
      return answer;
    };
    const book = await (await call("POST", "/books", { title: "All" })).json();
    for (let at = 0; at < addresses.length; at += linksInChapter) {
      const links = addresses.slice(at, at + linksInChapter).map((one, i) => ({
        type: "text",
        text: "w",
        marks: [
          {
            type: "link",
            attrs: { id: `l${at + i}`, destination: { kind: "web", address: one }, description: null },
          },
        ],
      }));
      const document = {
        type: "doc",
        content: [
          { type: "title", attrs: { id: `t${at}` }, content: [{ type: "text", text: `From ${at}` }] },
          ...links.map((link) => ({ type: "paragraph", content: [link] })),
        ],
      };
      await call("POST", `/books/${book.id}/chapters`, { title: `From ${at}`, document });
    }
    const tally = async () =>
      Object.values(await (await fetch(`http://127.0.0.1:${environment.STANDIN_WEB_PORT}/.tally`)).json());
    const run = async () => {
      await tally();
      const started = performance.now();
      const job = await (await call("POST", `/books/${book.id}/reach`, { which: "all" })).json();
      const events = await (await call("GET", `/jobs/${job.id}/events`)).text();
      const ms = performance.now() - started;
      const end = JSON.parse(events.trim().split("data: ").at(-1));
      if (end.state !== "done" || end.done !== addresses.length)
        throw new Error(`The run ended otherwise: ${JSON.stringify(end)}`);
      const questions = (await tally()).reduce((sum, count) => sum + count, 0);
      return { ms, questions, message: end.message };
    };
    const bare = async () => {
      const child = fork(join(import.meta.dirname, "bare-loop.mjs"), { stdio: "inherit" });
      child.send({ addresses, concurrency, port: environment.STANDIN_WEB_PORT });
      const [{ ms, questions }] = await once(child, "message");
      child.kill();
      return { ms, questions };
    };
    return await work({ run, bare, pid });
  } finally {
    await processes.endAll();
    rmSync(folder, { recursive: true, force: true });
  }
}

const web = largeWeb(defaultLargeWeb);
const addresses = pagesOf(web);
const seconds = (ms) => `${(ms / 1000).toFixed(1)} s`;
const turns = 5;
const spread = (values, digits = 2) => {
  const { least, middle, most } = new Spread(values);
  return `${middle.toFixed(digits)} (${least.toFixed(digits)} to ${most.toFixed(digits)})`;
};
const rate = ({ ms, questions }) => questions / (ms / 1000);

// Each page is asked twice; each host for its crawl delay, for a name that cannot exist, and by https. Between two questions
// to a host lies the gap, and two are under way at once.
const hostTime = ({ pages, latencyMs }) => {
  const questions = 2 * pages.length + (pages.length > 1 ? 3 : 2);
  return Math.max((questions - 1) * gapMs, (questions * latencyMs) / lanes);
};
const shortest = Math.max(...web.map(hostTime));
await withVennet(addresses, { REACH_GAP_MS: String(gapMs) }, async ({ run, pid }) => {
  const runs = [];
  for (let turn = 0; turn < turns; turn++) runs.push(await run());
  const [{ questions, message }] = runs;
  const times = spread(runs.map(({ ms }) => ms / shortest));
  console.log(
    `Reach run over ${addresses.length} pages on ${web.length} hosts, ${gapMs} ms between questions to a host`,
  );
  console.log(`  ${message}; ${questions} questions; ${turns} runs`);
  console.log(
    `  of the shortest time that its politeness allows, ${seconds(shortest)}: ${times} (aim: at most 1.05); peak memory ${peakMemory(pid)} MB`,
  );
});
// Hosts that refuse who asks too fast are left out here: to spare them is politeness too.
const unlimited = pagesOf(web.filter(({ limit }) => limit === null));
const impolite = { REACH_GAP_MS: "0", REACH_LANES: "16", REACH_RETRY_MS: "50" };
await withVennet(unlimited, impolite, async ({ run, bare }) => {
  // In turns, so that a machine that is busy for a while is so for both.
  const rates = { bare: [], run: [] };
  for (let turn = 0; turn < turns; turn++) {
    rates.bare.push(rate(await bare()));
    rates.run.push(rate(await run()));
  }
  console.log(
    `The same without politeness, ${concurrency} questions at a time, every answer kept in the database`,
  );
  console.log(
    `  questions a second: Vennet ${spread(rates.run, 0)}, a bare loop ${spread(rates.bare, 0)}; of the bare loop's rate ${spread(rates.run.map((one, i) => one / rates.bare[i]))} (aim: at least 0.85)`,
  );
});
const many = pagesOf(
  largeWeb({ seed: 8, hosts: 1_060, pages: 106_000 }).filter(({ limit }) => limit === null),
);
await withVennet(many, impolite, async ({ run, pid }) => {
  const samples = [];
  const timer = setInterval(() => samples.push(memoryNow(pid)), 500);
  const { ms } = await run().finally(() => clearInterval(timer));
  const median = (list) => [...list].sort((a, b) => a - b)[list.length >> 1];
  const tenth = Math.max(1, Math.floor(samples.length / 10));
  const early = median(samples.slice(tenth, 2 * tenth));
  const late = median(samples.slice(-tenth));
  console.log(`${many.length} addresses in ${seconds(ms)}`);
  console.log(
    `  memory of the server in the second tenth of the run ${early} MB, in the last ${late} MB: ratio ${(late / early).toFixed(2)} (aim: 1, flat)`,
  );
});
