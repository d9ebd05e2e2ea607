import { spawn, type ChildProcess } from "node:child_process";
import { createHash } from "node:crypto";
import { once } from "node:events";
import { afterAll, afterEach, beforeAll, describe, expect, test } from "@jest/globals";
import { DataSource } from "typeorm";
import { freePort } from "../../launch/processes.mjs";
import { databaseOptions } from "../database/data-source.ts";
import { startServerProcess, type ServerProcess } from "../test/server-process.ts";
import type { Client } from "../test/test-server.ts";

let database: DataSource;
const started: ServerProcess[] = [];
beforeAll(async () => {
  database = await new DataSource(databaseOptions(process.env["DATABASE_URL"]!)).initialize();
});
afterEach(async () => {
  await Promise.all(started.splice(0).map((server) => server.stop()));
});
afterAll(() => database.destroy());

/** So slow that a run of ten pages a host takes about a second. */
const pace = { REACH_GAP_MS: "40" };
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

async function start(environment: Record<string, string> = {}): Promise<ServerProcess> {
  const server = await startServerProcess({ ...pace, ...environment });
  started.push(server);
  return server;
}

async function tally(): Promise<Record<string, number>> {
  return (await (await fetch(`http://127.0.0.1:${process.env["STANDIN_WEB_PORT"]}/.tally`)).json()) as Record<
    string,
    number
  >;
}

function addresses(hosts: number, pages: number, name: string): string[] {
  return Array.from({ length: hosts * pages }, (_, i) => {
    return `https://stone-${(i % hosts) + 1}.hesterley.test/${name}-${Math.floor(i / hosts)}`;
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

/** Waits until a run is in its middle, however fast the machine is. */
async function untilAnswered(bookIds: string[], links: string[], count: number): Promise<void> {
  while ((await answered(bookIds, links)).size < count) await pause(20);
}

function timesAsked(tallied: Record<string, number>, link: string): number {
  return tallied[`HEAD ${link.replace("https://", "")}`] ?? 0;
}

test("a run whose server is killed goes on at the next start, and nothing is asked twice but what was in flight", async () => {
  const first = await start();
  const author = await first.client().signUp();
  const links = addresses(12, 10, "kept");
  const bookId = await bookOf(author, links);
  await tally();
  const job = await author.call<{ id: string }>("POST", `/books/${bookId}/reach`);
  await untilAnswered([bookId], links, 15);
  await first.kill();
  const before = await answered([bookId], links);
  expect(before.size).toBeGreaterThan(0);
  expect(before.size).toBeLessThan(links.length);

  const next = (await start()).client();
  next.cookie = author.cookie;
  expect(await next.jobEnd(job.body)).toMatchObject({ state: "done", done: 120, message: "120 sound" });
  const asked = await tally();
  expect([...before].filter((link) => timesAsked(asked, link) !== 1)).toEqual([]);
  expect(links.filter((link) => timesAsked(asked, link) === 0)).toEqual([]);
  // Two lanes for each of twelve hosts.
  expect(links.filter((link) => timesAsked(asked, link) > 1).length).toBeLessThanOrEqual(24);
}, 60_000);

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

  test("do the runs of many books together; when one is killed, the others take over what it was at", async () => {
    const [one, two, three] = await Promise.all([start(shared), start(shared), start(shared)]);
    const author = await one.client().signUp();
    const books = [addresses(8, 8, "first"), addresses(8, 8, "second"), addresses(8, 8, "third")];
    const links = books.flat();
    const bookIds = await Promise.all(books.map((own) => bookOf(author, own)));
    await tally();
    const jobs = await Promise.all(
      bookIds.map((id) => author.call<{ id: string }>("POST", `/books/${id}/reach`)),
    );
    await untilAnswered(bookIds, links, 15);
    await one.kill();
    const before = await answered(bookIds, links);
    expect(before.size).toBeGreaterThan(0);
    expect(before.size).toBeLessThan(links.length);

    const other = two.client();
    other.cookie = author.cookie;
    const ends = await Promise.all(jobs.map(({ body }) => other.jobEnd(body)));
    expect(ends.map(({ state, message }) => [state, message])).toEqual(Array(3).fill(["done", "64 sound"]));
    const asked = await tally();
    expect([...before].filter((link) => timesAsked(asked, link) !== 1)).toEqual([]);
    expect(links.filter((link) => timesAsked(asked, link) === 0)).toEqual([]);
    // Two lanes for each of the parts that the killed server may have had.
    expect(links.filter((link) => timesAsked(asked, link) > 1).length).toBeLessThanOrEqual(48);

    // And cancelled by one, a run stops in all within a second.
    const last = three.client();
    last.cookie = author.cookie;
    const job = await other.call<{ id: string }>("POST", `/books/${bookIds[0]}/reach`);
    await pause(400);
    expect((await last.call("DELETE", `/jobs/${job.body.id}`)).status).toBe(204);
    await pause(1000);
    await tally();
    await pause(500);
    expect(Object.keys(await tally())).toEqual([]);
    expect((await other.call<any>("GET", `/jobs/${job.body.id}`)).body.state).toBe("cancelled");
  }, 60_000);
});
