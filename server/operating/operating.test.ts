import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import {
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from "node:fs";
import { randomUUID } from "node:crypto";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync, gzipSync } from "node:zlib";
import { createConnection, type RowDataPacket } from "mysql2/promise";
import { DataSource } from "typeorm";
import { startDatabase } from "../../launch/database.mjs";
import { freePort, Processes } from "../../launch/processes.mjs";
import { Arrival } from "../import/arrival.entity.ts";
import { startServerProcess, type ServerProcess } from "../test/server-process.ts";
import { startTestServer, type TestServer } from "../test/test-server.ts";
import { makeBackup, readBackup, restoreBackup } from "./backup.ts";
import { PlannedBackups } from "./planned-backups.ts";

const folder = mkdtempSync(join(tmpdir(), "vennet-operating-"));
const firstRelease = join(import.meta.dirname, "fixtures/release-0.1.0.sql.gz");
const processes = new Processes();
const started: ServerProcess[] = [];
let server: TestServer;
/** A second database, which a test may fill. */
let other: string;

beforeAll(async () => {
  server = await startTestServer({ METRICS_TOKEN: "low-water-token" });
  other = (await startDatabase(processes, folder, await freePort())).url;
});
afterAll(async () => {
  await server.close();
  for (const one of started) await one.stop();
  await processes.endAll();
  rmSync(folder, { recursive: true, force: true });
});

describe("a backup", () => {
  test("is made while an author writes, tells what it holds, and comes back whole in an empty database alone", async () => {
    const author = await server.client().signUp();
    const { book } = (
      await author.bringIn("# Tides\n\n[office](https://tides.example/) [quay](https://quay.example/)")
    ).body;
    const form = new FormData();
    const plan = Buffer.from(Array.from({ length: 3_000_000 }, (_, i) => i % 251));
    form.set("file", new Blob([plan]), "plan.bin");
    await author.call("POST", `/books/${book.id}/files`, form);
    // As the texts of a manuscript of thousands of pages are kept, in one row.
    const documents = JSON.stringify(Array<string>(6_000_000).fill("low water"));
    const arrival = {
      id: randomUUID(),
      bookId: book.id,
      fileName: "long.zip",
      grouped: "{}",
      csv: "",
      documents,
    };
    await server.app
      .get(DataSource)
      .manager.insert(Arrival, { ...arrival, version: null, createdAt: new Date() });
    let isDone = false;
    const writing = (async () => {
      for (let i = 0; !isDone; i++) await author.call("PATCH", `/books/${book.id}`, { title: `Walks ${i}` });
    })();
    const file = join(folder, "while-writing.sql.gz");
    const content = await makeBackup(process.env["DATABASE_URL"]!, file);
    isDone = true;
    await writing;
    await server.app.get(DataSource).manager.delete(Arrival, { id: arrival.id });
    expect(content.books).toBeGreaterThan(0);
    expect(content.links).toBeGreaterThan(1);
    expect(content.files).toBeGreaterThan(0);
    expect(await readBackup(file)).toEqual(content);

    const empty = other;
    expect(await restoreBackup(empty, file)).toEqual(content);
    const restored = await startServerProcess({ DATABASE_URL: empty });
    started.push(restored);
    const again = restored.client();
    again.cookie = author.cookie;
    expect((await again.call("GET", `/books/${book.id}`)).body["links"]).toBe(2);
    const [{ id }] = (await again.call<any[]>("GET", `/books/${book.id}/files`)).body;
    const kept = await fetch(`${again.url}/api/books/${book.id}/files/${id}`, {
      headers: { cookie: again.cookie },
    });
    expect(Buffer.from(await kept.arrayBuffer()).equals(plan)).toBe(true);
    const connection = await createConnection(empty);
    const [[row]] = await connection.query<RowDataPacket[]>("SELECT documents FROM arrival WHERE id = ?", [
      arrival.id,
    ]);
    await connection.end();
    expect(row!["documents"] === documents).toBe(true);
    // Not a second time over what is there, and nothing of it was touched.
    await expect(restoreBackup(empty, file)).rejects.toMatchObject({ code: "not-empty" });
  });

  test("that is damaged, broken off, or none is told before anything is done", async () => {
    const whole = readFileSync(firstRelease);
    const write = (name: string, bytes: Uint8Array): string => {
      writeFileSync(join(folder, name), bytes);
      return join(folder, name);
    };
    const text = gunzipSync(whole).toString();
    for (const [file, code] of [
      [write("cut.gz", whole.subarray(0, whole.length / 2)), "damaged"],
      [write("broken-off.gz", gzipSync(text.slice(0, text.length / 2))), "damaged"],
      [write("other.gz", gzipSync("SELECT 1;\n-- Dump completed")), "no-backup"],
      [write("plain.gz", Buffer.from("no gzip at all")), "damaged"],
    ] as const)
      await expect(restoreBackup(other, file)).rejects.toMatchObject({ code });
  });

  test("that cannot be made leaves no file", async () => {
    const away = "mysql://vennet:x@127.0.0.1:1/vennet";
    await expect(makeBackup(away, join(folder, "never.sql.gz"))).rejects.toMatchObject({ code: "database" });
    expect(readdirSync(folder).filter((name) => name.startsWith("never"))).toEqual([]);
  });

  test("is made by the server when one is due, and so many are kept", async () => {
    const kept = mkdtempSync(join(folder, "kept-"));
    writeFileSync(join(kept, "somebody-elses.sql.gz"), "");
    const own = await startTestServer({ BACKUP_FOLDER: kept, BACKUP_EVERY_HOURS: "24", BACKUPS_KEPT: "2" });
    const made = () =>
      readdirSync(kept)
        .filter((name) => name.startsWith("vennet-"))
        .sort();
    while (made().filter((name) => name.endsWith(".gz")).length === 0)
      await new Promise((resolve) => setTimeout(resolve, 50));
    await own.close();
    const next = await startTestServer({ BACKUP_FOLDER: kept, BACKUP_EVERY_HOURS: "24", BACKUPS_KEPT: "2" });
    const planned = next.app.get(PlannedBackups);
    await planned.makeDue(new Date());
    expect(made()).toHaveLength(1);
    for (const days of [1, 2, 3]) {
      const long = new Date(Date.now() - 48 * 60 * 60_000);
      for (const name of made()) utimesSync(join(kept, name), long, long);
      await planned.makeDue(new Date(Date.now() + days * 24 * 60 * 60_000));
    }
    expect(made()).toHaveLength(2);
    expect(readdirSync(kept)).toContain("somebody-elses.sql.gz");
    expect(await planned.lastAt()).not.toBeNull();
    await next.close();
  });
});

test("a planned backup that fails is in the way of no later one, whichever server makes it", async () => {
  const kept = mkdtempSync(join(folder, "failing-"));
  const now = new Date("2026-11-26T05:00:00Z");
  const settings = { BACKUP_FOLDER: kept };
  const servers = await Promise.all([1, 2].map(() => startTestServer(settings)));
  const [first, second] = servers.map(({ app }) => app.get(PlannedBackups)) as [
    PlannedBackups,
    PlannedBackups,
  ];
  // Those that are made at the start are out of the way.
  await Promise.all([first, second].map((one) => one.onApplicationShutdown()));
  for (const name of readdirSync(kept)) rmSync(join(kept, name));
  const inTheWay = join(kept, "vennet-2026-11-26T05-00-00.sql.gz.partial");
  mkdirSync(inTheWay);
  await expect(first.makeDue(now)).rejects.toThrow();
  rmSync(inTheWay, { recursive: true, force: true });
  await second.makeDue(now);
  expect(readdirSync(kept)).toEqual(["vennet-2026-11-26T05-00-00.sql.gz"]);
  for (const one of servers) await one.close();
});

test("the data of the first release comes through all changes of the tables since", async () => {
  const place = mkdtempSync(join(folder, "upgrade-"));
  const { url } = await startDatabase(processes, place, await freePort());
  expect(await restoreBackup(url, firstRelease)).toEqual({ books: 1, links: 6, files: 2 });
  const now = await startServerProcess({ DATABASE_URL: url });
  started.push(now);
  const client = now.client();
  const signedIn = await client.call("POST", "/session", {
    email: "pell@authors.example",
    password: "four words of the sea",
  });
  expect(signedIn.status).toBe(201);
  const [book] = (await client.call<any[]>("GET", "/books")).body;
  expect(book).toMatchObject({ title: "Walks at low water", chapters: 2, links: 6 });
  const { rows } = (await client.call<any>("GET", `/books/${book.id}/links`)).body;
  expect(rows.map(({ text }: any) => text)).toEqual([
    "nine",
    "the table",
    "gone",
    "the warden",
    "telephone",
    "Tern Head",
  ]);
  const [exported] = (await client.call<any[]>("GET", `/books/${book.id}/exports`)).body;
  expect(exported).toMatchObject({ format: "epub", intact: 6, total: 6, complete: true });
  const { proof } = await client.exported(book.id, "pdf");
  expect([proof.intact, proof.total]).toEqual([6, 6]);
});

test("health tells what the server stands on", async () => {
  const { status, body } = await server.client().call<any>("GET", "/health");
  expect([status, body.state, body.database.state]).toEqual([200, "well", "well"]);
  expect(body.disk.freeBytes).toBeLessThanOrEqual(body.disk.totalBytes);
  expect(body.lanes.map(({ lane }: { lane: string }) => lane)).toContain("exportBook");
  expect(body.queue).toEqual({ waiting: expect.any(Number), running: expect.any(Number) });
  expect(body.backupAgeSeconds).toBeNull();
});

test("metrics are in the text format of Prometheus, for who has their token alone", async () => {
  const ask = (authorization?: string) =>
    fetch(`${server.url}/api/metrics`, { headers: authorization ? { authorization } : {} });
  for (const wrong of [undefined, "Bearer wrong", "low-water-token"])
    expect((await ask(wrong)).status).toBe(401);
  await server.client().call("GET", "/entry");
  const answer = await ask("Bearer low-water-token");
  expect(answer.headers.get("content-type")).toContain("text/plain; version=0.0.4");
  const text = await answer.text();
  expect(text).toMatch(/^# TYPE vennet_request_seconds histogram$/m);
  expect(text).toMatch(
    /^vennet_request_seconds_count\{method="GET",route="\/api\/entry",status="200"\} [1-9]/m,
  );
  expect(text).toMatch(/^vennet_database_up 1$/m);
  // Every line is a comment or a sample (Prometheus exposition format 0.0.4).
  for (const line of text.trim().split("\n"))
    if (line !== "")
      expect(line).toMatch(/^(# (HELP|TYPE) |[a-zA-Z_:][\w:]*(\{.*\})? (NaN|[+-]?Inf|[-+\d.e]+)$)/);
});

test("a connection is kept longer than proxies keep it, so that none sends into one that is being closed", async () => {
  const { headers } = await server.client().call("GET", "/health");
  expect(headers.get("keep-alive")).toBe("timeout=75");
});
