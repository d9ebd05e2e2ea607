import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { getDataSourceToken } from "@nestjs/typeorm";
import { randomUUID } from "node:crypto";
import type { DataSource } from "typeorm";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
let stranger: Client;
let bookId: string;
let deletedBookId: string;
let jobId: string;

beforeAll(async () => {
  server = await startTestServer();
  [author, stranger] = await Promise.all([server.client().signUp(), server.client().signUp()]);
  bookId = (await author.bringIn("# T\n\n[a](https://tides.example/)")).body.book.id;
  jobId = (await author.call("POST", `/books/${bookId}/exports`, { format: "markdown" })).body["id"];
  await author.jobEnd({ id: jobId });
  deletedBookId = (await author.call("POST", "/books", { title: "Fog bells" })).body["id"] as string;
  await author.call("DELETE", `/books/${deletedBookId}`);
});
afterAll(() => server.close());

type Route = [method: string, path: string];

async function routes(): Promise<Route[]> {
  const { body } = await author.call<any>("GET", "/openapi.json");
  return Object.entries(body.paths as Record<string, object>).flatMap(([path, operations]) =>
    Object.keys(operations).map((method): Route => [method.toUpperCase(), path.replace(/^\/api/, "")]),
  );
}

const filled = (path: string): string =>
  path
    .replace("{bookId}", bookId)
    .replace("{deletedBookId}", deletedBookId)
    .replace("{jobId}", jobId)
    .replaceAll(/\{\w+\}/g, () => randomUUID());

test("every route that names a book or a job is shut to other authors, as if there were none", async () => {
  const guarded = (await routes()).filter(([, path]) => /\{(bookId|deletedBookId|jobId)\}/.test(path));
  expect(guarded.length).toBeGreaterThan(50);
  const open: unknown[] = [];
  for (const [method, path] of guarded) {
    const { status, body } = await stranger.call(method, filled(path));
    const what = /\{jobId\}/.test(path) ? "job" : path.includes("{bookId}") ? "book" : "deleted book";
    if (status !== 404 || body["message"] !== `There is no such ${what}.`)
      open.push([method, path, status, body]);
  }
  expect(open).toEqual([]);
});

test("every route but coming in and health asks for a session, and the metrics for their token", async () => {
  const nobody = server.client();
  const open: string[] = [];
  for (const [method, path] of await routes())
    if ((await nobody.call(method, filled(path))).status !== 401) open.push(`${method} ${path}`);
  expect(open.sort()).toEqual([
    "GET /entry",
    "GET /health",
    "POST /accounts",
    "POST /email-links/use",
    "POST /password-links",
    "POST /password-links/use",
    "POST /session",
    "POST /session/demo",
  ]);
});

test("every write notes the account that made it", async () => {
  const database = server.app.get<DataSource>(getDataSourceToken());
  const [{ accountId }] = await database.query("SELECT accountId FROM book WHERE id = ?", [bookId]);
  const [chapter] = (await author.call<any>("GET", `/books/${bookId}/chapters`)).body;
  await author.call("POST", `/books/${bookId}/chapters/${chapter.id}/versions`, { name: "First" });
  const { rows } = (await author.call<any>("GET", `/books/${bookId}/links`)).body;
  const links = rows.map(({ chapterId, linkId }: any) => ({ chapterId, linkId }));
  const edit = { kind: "describe", description: "The tide office" };
  expect((await author.call("POST", `/books/${bookId}/links/edits`, { links, edit })).status).toBe(201);
  const accepted = { subject: links[0].linkId, rule: "thin-words", reason: "It is so." };
  expect((await author.call("PUT", `/books/${bookId}/acceptances`, accepted)).status).toBeLessThan(300);
  for (const table of ["chapter_version", "book_step", "acceptance", "export", "job"]) {
    const noted: { accountId: string }[] = await database.query(
      `SELECT DISTINCT accountId FROM ${table} WHERE bookId = ?`,
      [bookId],
    );
    expect([table, noted]).toEqual([table, [{ accountId }]]);
  }
});
