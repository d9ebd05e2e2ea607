import { spawn, type ChildProcess } from "node:child_process";
import { createHash, randomUUID } from "node:crypto";
import { once } from "node:events";
import { afterAll, afterEach, beforeAll, describe, expect, test } from "@jest/globals";
import { DataSource } from "typeorm";
import { freePort } from "../../launch/processes.mjs";
import { databaseOptions } from "../database/data-source.ts";
import { startServerProcess, type ServerProcess } from "../test/server-process.ts";
import { Settings } from "../settings.ts";
import { HostGates } from "./host-gates.ts";
import { SharedPace } from "./shared-pace.ts";
import { startTestServer, type Client } from "../test/test-server.ts";

let database: DataSource;
const started: ServerProcess[] = [];
beforeAll(async () => {
  database = await new DataSource(databaseOptions(process.env["DATABASE_URL"]!)).initialize();
});
afterEach(async () => {
  await Promise.all(started.splice(0).map((server) => server.stop()));
});
afterAll(() => database.destroy());

// What is held waits for as long as a test takes.
const pace = { REACH_GAP_MS: "5", REACH_TIMEOUT_MS: "600000" };
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

async function start(environment: Record<string, string> = {}): Promise<ServerProcess> {
  const server = await startServerProcess({ ...pace, ...environment });
  started.push(server);
  return server;
}

const standIn = (path: string) => fetch(`http://127.0.0.1:${process.env["STANDIN_WEB_PORT"]}${path}`);

async function tally(): Promise<Record<string, number>> {
  return (await (await standIn("/.tally")).json()) as Record<string, number>;
}

/** Pages of hosts that answer at once, or of hosts that answer when they are let. */
function addresses(kind: "stone" | "held", hosts: number, pages: number, name: string): string[] {
  // The hosts that wait have no certificate.
  const scheme = kind === "held" ? "http" : "https";
  return Array.from({ length: hosts * pages }, (_, i) => {
    return `${scheme}://${kind}-${(i % hosts) + 1}.hesterley.test/${name}-${Math.floor(i / hosts)}`;
  });
}

async function bookOf(author: Client, links: string[]): Promise<string> {
  const { body } = await author.bringIn(`# T\n\n${links.map((link, i) => `[w${i}](<${link}>)`).join(" ")}`);
  return body.book.id as string;
}

/** The addresses whose answers the database has. */
async function answered(bookIds: string[], links: string[]): Promise<Set<string>> {
  const rows: { destinationHash: string }[] = await database.query(
    "SELECT destinationHash FROM reach_outcome WHERE bookId IN (?)",
    [bookIds],
  );
  const hashes = new Set(rows.map(({ destinationHash }) => destinationHash));
  return new Set(links.filter((link) => hashes.has(createHash("sha256").update(link).digest("hex"))));
}

/** Waits until all of some links are answered: then a run is at those that are held. */
async function untilAnswered(bookIds: string[], links: string[]): Promise<void> {
  while ((await answered(bookIds, links)).size < links.length) await pause(20);
}

function timesAsked(tallied: Record<string, number>, link: string): number {
  return tallied[`HEAD ${link.replace(/^https?:\/\//, "")}`] ?? 0;
}

test("a run whose server is killed goes on at the next start, and nothing is asked twice but what was in flight", async () => {
  const first = await start();
  const author = await first.client().signUp();
  const quick = addresses("stone", 12, 8, "kept");
  const held = addresses("held", 6, 4, "kept");
  const bookId = await bookOf(author, [...quick, ...held]);
  await Promise.all([tally(), standIn("/.hold")]);
  const job = await author.call<{ id: string }>("POST", `/books/${bookId}/reach`);
  await untilAnswered([bookId], quick);
  await first.kill();
  expect((await answered([bookId], held)).size).toBe(0);

  const next = (await start()).client();
  next.cookie = author.cookie;
  await standIn("/.release");
  expect(await next.jobEnd(job.body)).toMatchObject({ state: "done", done: 120, message: "120 sound" });
  const asked = await tally();
  expect(quick.filter((link) => timesAsked(asked, link) !== 1)).toEqual([]);
  expect(held.filter((link) => timesAsked(asked, link) === 0)).toEqual([]);
  // Two lanes for each of six hosts.
  expect(held.filter((link) => timesAsked(asked, link) > 1).length).toBeLessThanOrEqual(12);
});

describe("several servers that share one Redis", () => {
  let redis: ChildProcess;
  let shared: Record<string, string>;
  beforeAll(async () => {
    const port = await freePort();
    redis = spawn(
      "redis-server",
      ["--port", String(port), "--bind", "127.0.0.1", "--save", "", "--appendonly", "no"],
      {
        stdio: "ignore",
      },
    );
    shared = { REDIS_URL: `redis://127.0.0.1:${port}`, TAKE_OVER_MS: "3000" };
  });
  afterAll(async () => {
    redis.kill();
    await once(redis, "exit");
  });

  test("count wrong passwords together", async () => {
    const servers = await Promise.all([1, 2].map(() => startTestServer(shared)));
    const email = `${randomUUID()}@authors.example`;
    const tries = async (i: number): Promise<number> =>
      (await servers[i % 2]!.client().call("POST", "/session", { email, password: "wrong tide" })).status;
    for (let i = 0; i < 5; i++) expect(await tries(i)).toBe(401);
    expect([await tries(0), await tries(1)]).toEqual([429, 429]);
    for (const server of servers) await server.close();
  });

  test("keep the pace of a host together, and leave it alone together", async () => {
    const settings = new Settings({ ...shared, REACH_GAP_MS: "100", REACH_LANES: "8" });
    const paces = [1, 2].map(() => new SharedPace(settings));
    const gates = paces.map((pace) => new HostGates(settings, undefined, pace));
    // Connected: a turn taken before would be each server's own.
    for (const pace of paces) while ((await pace.begin("ready.example", 1_000)) === 0) await pause(20);
    const signal = new AbortController().signal;
    const begun: number[] = [];
    const ask = async (i: number): Promise<void> => {
      const leave = await gates[i % 2]!.enter("tides.example", "book", signal);
      begun.push(performance.now());
      leave();
    };
    await Promise.all(Array.from({ length: 8 }, (_, i) => ask(i)));
    // One after the other, whichever of the two asks: seven gaps.
    expect(Math.max(...begun) - Math.min(...begun)).toBeGreaterThan(7 * 100 - 50);
    const from = performance.now();
    gates[0]!.rest("tides.example", 600);
    while ((await paces[1]!.restOf("tides.example")) === 0) await pause(5);
    await ask(1);
    expect(performance.now() - from).toBeGreaterThan(500);
    for (const pace of paces) pace.onApplicationShutdown();
  });

  test("do the runs of many books together; when one is killed, the others take over what it was at", async () => {
    const [one, two, three] = await Promise.all([start(shared), start(shared), start(shared)]);
    const author = await one.client().signUp();
    const names = ["first", "second", "third"];
    const quick = names.map((name) => addresses("stone", 8, 6, name));
    const held = names.map((name) => addresses("held", 4, 4, name));
    const bookIds = await Promise.all(names.map((_, i) => bookOf(author, [...quick[i]!, ...held[i]!])));
    await Promise.all([tally(), standIn("/.hold")]);
    const jobs = await Promise.all(
      bookIds.map((id) => author.call<{ id: string }>("POST", `/books/${id}/reach`)),
    );
    await untilAnswered(bookIds, quick.flat());
    await one.kill();

    const other = two.client();
    other.cookie = author.cookie;
    await standIn("/.release");
    const ends = await Promise.all(jobs.map(({ body }) => other.jobEnd(body)));
    expect(ends.map(({ state, message }) => [state, message])).toEqual(Array(3).fill(["done", "64 sound"]));
    const asked = await tally();
    expect(quick.flat().filter((link) => timesAsked(asked, link) !== 1)).toEqual([]);
    expect(held.flat().filter((link) => timesAsked(asked, link) === 0)).toEqual([]);
    // Two lanes for each of the parts that the killed server may have had.
    expect(held.flat().filter((link) => timesAsked(asked, link) > 1).length).toBeLessThanOrEqual(24);

    // And cancelled by one, a run stops in all: what had not been asked by then is never asked.
    const last = three.client();
    last.cookie = author.cookie;
    await standIn("/.hold");
    const job = await other.call<{ id: string }>("POST", `/books/${bookIds[0]}/reach`);
    while (Object.keys(await tally()).every((key) => !key.includes("held-"))) await pause(20);
    expect((await last.call("DELETE", `/jobs/${job.body.id}`)).status).toBe(204);
    expect((await other.jobEnd(job.body)).state).toBe("cancelled");
    // Each server hears of it in its own time; then nothing is asked any more, though the hosts would answer.
    while (Object.keys(await tally()).length > 0) await pause(500);
    await standIn("/.release");
    await pause(500);
    expect(Object.keys(await tally())).toEqual([]);
  });
});
