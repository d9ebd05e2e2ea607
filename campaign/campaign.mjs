import { mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { freePort, Processes } from "../launch/processes.mjs";
import { startServices } from "../launch/services.mjs";
import { keepRunning } from "../launch/supervise.mjs";
import { Author } from "./author.mjs";
import { bodies } from "./attacks/bodies.mjs";
import { damagedFiles } from "./attacks/damaged-files.mjs";
import { fullDisk } from "./attacks/full-disk.mjs";
import { hardInput } from "./attacks/hard-input.mjs";
import { hostileHosts } from "./attacks/hostile-hosts.mjs";
import { hostileRequests } from "./attacks/hostile-requests.mjs";
import { kills } from "./attacks/kills.mjs";
import { largeChapters } from "./attacks/large-chapters.mjs";
import { oddParts } from "./attacks/odd-parts.mjs";
import { slowClients } from "./attacks/slow-clients.mjs";
import { watched } from "./watch.mjs";

const attacks = [
  bodies,
  slowClients,
  hostileHosts,
  hardInput,
  largeChapters,
  damagedFiles,
  hostileRequests,
  oddParts,
  fullDisk,
  kills,
];
const mostMegabytes = 1024;
const mostAddedMs = 500;
const quietMs = 5_000;
/** What is ended here again and again is started again at once. */
const longestPause = 500;

/**
 * Attacks a Vennet of its own in every way that is listed, on loopback alone, and watches what a well-behaved author
 * feels of each.
 * @param short a few of each, without an aim for the time that she waits, which depends on the machine
 * @param only the names of attacks that are meant, by a part of each; all where it is empty
 * @returns a row for each attack, and what was wrong
 */
export async function campaign({ short, seed, only }) {
  const folder = mkdtempSync(join(tmpdir(), "vennet-campaign-"));
  const processes = new Processes();
  const entries = {};
  try {
    const run = async (begin) =>
      keepRunning(
        processes,
        async () => {
          const entry = await begin();
          entries[entry.name] = entry;
          return entry;
        },
        longestPause,
      );
    const { address, environment } = await startServices(
      processes,
      folder,
      await freePort(),
      { REACH_TIMEOUT_MS: "2000", SIGN_UPS_PER_HOUR: "1000000", LOG_LEVEL: "error" },
      run,
    );
    const newAuthor = () => new Author(address).signUp();
    const context = {
      address,
      short,
      seed,
      newAuthor,
      environment: () => environment,
      kill: async (which) => {
        const { child, exited } = entries[`the ${which}`];
        process.kill(child.pid, "SIGKILL");
        await exited;
      },
      isWell: async () => {
        while ((await fetch(`${address}/api/health`).catch(() => null))?.status !== 200) await sleep(50);
      },
      orphans: () => orphans(entries["the server"].child.pid),
    };
    const author = await newAuthor();
    const bookId = await author.bringIn(
      "# Tides\n\nLow water is at nine, see [the office](https://tides.hesterley.example/).\n",
    );
    const pid = () => entries["the server"].child.pid;
    const quiet = await watched(author, bookId, pid, () => sleep(quietMs));
    const rows = [row("A quiet machine", quiet, { did: `${quietMs / 1000} s` })];
    const wrong = [];
    for (const attack of attacks) {
      if (only.length > 0 && !only.some((part) => attack.name.toLowerCase().includes(part.toLowerCase())))
        continue;
      console.error(`… ${attack.name}`);
      const seen = await watched(author, bookId, pid, () => attack.run(context));
      const { result } = seen;
      rows.push(row(attack.name, seen, result));
      const faults = seen.faults + (result.statuses ?? []).filter((status) => status === 500).length;
      if (faults > 0) wrong.push(`${attack.name}: ${faults} answers of 500`);
      if (seen.megabytes > mostMegabytes) wrong.push(`${attack.name}: the server took ${seen.megabytes} MB`);
      if (!short && !attack.isAway && seen.longestMs > quiet.longestMs + mostAddedMs)
        wrong.push(
          `${attack.name}: she waited ${seen.longestMs} ms, on a quiet machine ${quiet.longestMs} ms`,
        );
      for (const one of (result.wrong ?? []).slice(0, 20)) wrong.push(`${attack.name}: ${one}`);
    }
    return { rows, wrong };
  } finally {
    await processes.endAll();
    rmSync(folder, { recursive: true, force: true });
  }
}

function row(name, { longestMs, megabytes }, { did, statuses = [] }) {
  const of = (from, to) => statuses.filter((status) => status >= from && status <= to).length;
  return {
    attack: name,
    did,
    "longest wait (ms)": longestMs,
    "memory (MB)": megabytes,
    "2xx": of(200, 299),
    "4xx": of(400, 499),
    "of 500": of(500, 500),
  };
}

/** Processes for heavy work that have outlived the server that began them; they get some seconds to see it. */
async function orphans(serverPid) {
  let left = [];
  for (let i = 0; i < 100; i++) {
    left = readdirSync("/proc")
      .filter((name) => /^\d+$/.test(name))
      .flatMap((pid) => {
        try {
          const command = readFileSync(`/proc/${pid}/cmdline`, "utf8").replaceAll("\0", " ");
          const [, parent] = /^PPid:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, "utf8"));
          const isOrphan =
            command.includes("worker-process.js") && Number(parent) !== serverPid && Number(parent) === 1;
          return isOrphan ? [`${pid} ${command}`] : [];
        } catch {
          return [];
        }
      });
    if (left.length === 0) return [];
    await sleep(100);
  }
  return left;
}
