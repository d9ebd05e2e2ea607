import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createConnection, type RowDataPacket } from "mysql2/promise";
import { QueryFailedError } from "typeorm";
import { startDatabase } from "../../launch/database.mjs";
import { freePort, Processes } from "../../launch/processes.mjs";
import { startServerProcess, type ServerProcess } from "../test/server-process.ts";
import { lackOfRoom } from "../errors/problem.ts";
import { isDatabaseAway, isDiskFull, isTooLong } from "./away.ts";

// A database of this test's own, so that it can be killed.
const folder = mkdtempSync(join(tmpdir(), "vennet-away-"));
const processes = new Processes();
let port: number;
let database: Awaited<ReturnType<typeof startDatabase>>;
let server: ServerProcess;

beforeAll(async () => {
  port = await freePort();
  database = await startDatabase(processes, folder, port);
  server = await startServerProcess({ DATABASE_URL: database.url, LOG_LEVEL: "fatal" });
});
afterAll(async () => {
  await server.stop();
  await processes.endAll();
  rmSync(folder, { recursive: true, force: true });
});

const standIn = (path: string) => fetch(`http://127.0.0.1:${process.env["STANDIN_WEB_PORT"]}${path}`);

test("while the database is away requests are told to come again; what was acknowledged is there, and jobs go on", async () => {
  const author = await server.client().signUp();
  const { body } = await author.bringIn("# Walks\n\nOne [link](http://held-1.hesterley.test/a).\n");
  const bookId = body.book.id as string;
  await standIn("/.hold");
  const job = (await author.call<{ id: string }>("POST", `/books/${bookId}/reach`)).body;
  const state = async () => (await author.call("GET", `/jobs/${job.id}`)).body["state"];
  while ((await state()) !== "running") await new Promise((resolve) => setTimeout(resolve, 20));
  const acknowledged = (await author.call("PATCH", `/books/${bookId}`, { title: "Walks at low water" }))
    .status;
  expect(acknowledged).toBe(200);

  database.child.kill("SIGKILL");
  await database.exited;
  // RFC 9110, 15.6.4: the service is unavailable, and Retry-After says for how long it may be.
  for (const [method, path, sent] of [
    ["GET", `/books/${bookId}`],
    ["PATCH", `/books/${bookId}`, { title: "Never" }],
    ["POST", "/session", { email: "a@b.example", password: "low tide at nine" }],
  ] as const) {
    const answer = await author.call(method, path, sent);
    expect([answer.status, answer.body["code"], answer.headers.get("retry-after")]).toEqual([
      503,
      "database-away",
      "5",
    ]);
  }
  // The run's answer comes while nothing can be written.
  await standIn("/.release");

  database = await startDatabase(processes, folder, port);
  while ((await author.call("GET", `/books/${bookId}`)).status !== 200)
    await new Promise((resolve) => setTimeout(resolve, 20));
  expect((await author.call("GET", `/books/${bookId}`)).body["title"]).toBe("Walks at low water");
  expect(await author.jobEnd(job)).toMatchObject({ state: "done", done: 1 });
  expect(await tablesWithFaults()).toEqual([]);
});

/** What MariaDB itself says of every table after it was killed. */
async function tablesWithFaults(): Promise<unknown[]> {
  const connection = await createConnection(database.url);
  const [tables] = await connection.query<RowDataPacket[]>("SHOW TABLES");
  const names = tables.map((row) => `\`${Object.values(row)[0]}\``);
  expect(names.length).toBeGreaterThan(10);
  const [told] = await connection.query<RowDataPacket[]>(`CHECK TABLE ${names.join(", ")}`);
  await connection.end();
  return told.filter(({ Msg_text }) => Msg_text !== "OK");
}

test("what the driver says is told apart: away, full, too long, and neither", () => {
  const failed = (code: string, message = "") =>
    new QueryFailedError("SELECT 1", [], Object.assign(new Error(message), { code }));
  expect(isDatabaseAway(failed("PROTOCOL_CONNECTION_LOST"))).toBe(true);
  expect(isDatabaseAway(failed("", "Can't add new command when connection is in closed state"))).toBe(true);
  expect(isDatabaseAway(failed("ER_DUP_ENTRY"))).toBe(false);
  // Of some other service than the database.
  expect(isDatabaseAway(Object.assign(new Error(), { code: "ECONNREFUSED" }))).toBe(false);
  expect(isDiskFull(failed("ER_RECORD_FILE_FULL"))).toBe(true);
  expect(isDiskFull(Object.assign(new Error(), { code: "ENOSPC" }))).toBe(true);
  expect(isTooLong(failed("ER_NET_PACKET_TOO_LARGE"))).toBe(true);
  expect(isTooLong(failed("ER_RECORD_FILE_FULL"))).toBe(false);
  expect(
    ["ER_NET_PACKET_TOO_LARGE", "ER_DISK_FULL", "ER_DUP_ENTRY"].map((code) => lackOfRoom(failed(code))?.code),
  ).toEqual(["too-long", "no-room", undefined]);
});
