import { setMaxListeners } from "node:events";
import { onTimeMs } from "@vennet/core/reach/politeness";
import { HostGates } from "../server/dist/reach/host-gates.js";
import { Settings } from "../server/dist/settings.js";
import { randomFrom } from "./seeded-book.mjs";

// Many servers that share the pace of hosts, simulated: the server's own gates, with a clock that jumps from one thing that
// happens to the next, a Redis that is one map, and hosts from a seed that answer after a while. No network. It shows whether
// any host was ever asked sooner than its gap allows, and how much of what servers may ask at once they did.

const gapMs = 100;
const seed = 26;
const questionsPerServer = 3_000;
/** As many pieces of work as a server has under way. */
const piecesAtOnce = 256;
const never = new AbortController().signal;
setMaxListeners(0, never);

for (const servers of [1, 10, 100]) await simulate(servers);

async function simulate(servers) {
  const clock = jumpingClock();
  const redis = sharedPace(clock);
  const settings = new Settings({ REACH_GAP_MS: String(gapMs) });
  const { pieces, latencyOf } = work(servers);
  const questions = pieces.reduce((sum, { count }) => sum + count, 0);
  const asked = new Map();
  let closest = Infinity;
  let under = 0;
  let mostUnder = 0;
  const ask = async (gates, host, book) => {
    const leave = await gates.enter(host, book, never);
    clock.stir();
    closest = Math.min(closest, clock.now() - (asked.get(host) ?? -Infinity));
    asked.set(host, clock.now());
    mostUnder = Math.max(mostUnder, ++under);
    await clock.sleep(latencyOf(host));
    under--;
    leave();
  };
  let next = 0;
  const server = async () => {
    const gates = new HostGates(settings, clock, redis);
    // As many pieces at once as a server takes, each in as many lanes as a host has.
    const place = async () => {
      while (next < pieces.length) {
        const { host, book, count } = pieces[next++];
        let left = count;
        const lane = async () => {
          while (left-- > 0) await ask(gates, host, book);
        };
        await Promise.all(Array.from({ length: settings.reachLanes }, lane));
        clock.stir();
      }
    };
    await Promise.all(Array.from({ length: piecesAtOnce }, place));
  };
  const all = Promise.all(Array.from({ length: servers }, server));
  let isDone = false;
  void all.then(() => (isDone = true));
  const samples = [];
  let workLasts = true;
  while (!isDone) {
    await clock.jump();
    // While there is work for all; at the end a few slow hosts are left.
    workLasts &&= next < pieces.length;
    if (workLasts) samples.push(under);
  }
  await all;
  const hosts = new Map();
  for (const { host, count } of pieces) hosts.set(host, (hosts.get(host) ?? 0) + count);
  const longest = Math.max(
    ...[...hosts].map(([host, count]) =>
      Math.max((count - 1) * gapMs, (count * latencyOf(host)) / settings.reachLanes),
    ),
  );
  const middle = samples.sort((a, b) => a - b)[samples.length >> 1] ?? 0;
  console.log(`${servers} servers, ${questions} questions to ${hosts.size} hosts in ${pieces.length} pieces`);
  console.log(
    `  a host was asked again after ${closest.toFixed(0)} ms at the soonest (its gap: ${gapMs}); ${middle} questions under way in the middle while there was work for all, ${mostUnder} at most, of ${servers * settings.reachConcurrency} places`,
  );
  console.log(
    `  ${(clock.now() / 1000).toFixed(0)} s, the busiest host alone needs ${(longest / 1000).toFixed(0)} s: ${Math.round(questions / (clock.now() / 1000))} questions a second`,
  );
}

/** What books ask of hosts: a few hosts are in many books, most in few. */
function work(servers) {
  const random = randomFrom(seed);
  const hosts = servers * 300;
  const latencies = Array.from({ length: hosts }, () => 40 + 400 * random() ** 3);
  const pieces = [];
  for (let book = 0, questions = 0; questions < servers * questionsPerServer; book++) {
    for (let i = 0; i < 30; i++) {
      const host = Math.floor(hosts * random() ** 1.6);
      const count = 1 + Math.floor(7 * random() ** 2);
      pieces.push({ host: `h${host}`, book: `b${book}`, count });
      questions += count;
    }
  }
  return { pieces, latencyOf: (host) => latencies[Number(host.slice(1))] };
}

/** A clock that stands still while anything can go on, and then jumps to what sleeps shortest. */
function jumpingClock() {
  let time = 0;
  let stirred = false;
  const sleepers = new Map();
  return {
    now: () => time,
    stir: () => (stirred = true),
    sleep: (ms) =>
      new Promise((resolve) => {
        stirred = true;
        // Nobody wakes too soon.
        const until = Math.ceil(time + Math.max(0, ms));
        const others = sleepers.get(until);
        if (others) others.push(resolve);
        else sleepers.set(until, [resolve]);
      }),
    jump: async () => {
      for (let quiet = 0; quiet < 3; quiet++) {
        stirred = false;
        await new Promise((resolve) => setImmediate(resolve));
        if (stirred) quiet = -1;
      }
      if (sleepers.size === 0) return;
      while (!sleepers.has(time)) time++;
      const wake = sleepers.get(time);
      sleepers.delete(time);
      for (const resolve of wake) resolve();
    },
  };
}

/** What servers with one Redis share of hosts: the turn that is next. */
function sharedPace(clock) {
  const turns = new Map();
  return {
    begin: async (host, gap) => {
      const turn = turns.get(host) ?? 0;
      const late = clock.now() - turn;
      if (late < 0) return -late;
      turns.set(host, (late > onTimeMs ? clock.now() : turn) + gap);
      return 0;
    },
    restOf: async () => 0,
    rest: async () => undefined,
  };
}
