import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { once } from "node:events";
import { readdirSync } from "node:fs";
import { request, type ClientRequest, type IncomingMessage } from "node:http";
import { tmpdir } from "node:os";
import { setTimeout as sleep } from "node:timers/promises";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";

let server: TestServer;
let author: Client;
let bookId: string;
beforeAll(async () => {
  server = await startTestServer({ BODY_PACE: "100", UPLOADS_AT_ONCE: "2" });
  author = await server.client().signUp();
  bookId = await author.write([]);
});
afterAll(() => server.close());

const head = '--tide\r\ncontent-disposition: form-data; name="file"; filename="gauges.txt"\r\n\r\n';

/** Begins an upload, and leaves it to the test to go on. */
function beginUpload({ cookie, url }: Client, length: number): ClientRequest {
  const sending = request(`${url}/api/books/${bookId}/files`, {
    method: "POST",
    headers: { cookie, "content-type": "multipart/form-data; boundary=tide", "content-length": length },
  });
  sending.on("error", () => undefined);
  sending.write(head);
  return sending;
}

async function answerOf(sending: ClientRequest): Promise<{ status: number; body: any; retryAfter: unknown }> {
  const [answer] = (await once(sending, "response")) as [IncomingMessage];
  let text = "";
  for await (const piece of answer) text += String(piece);
  return { status: answer.statusCode!, body: JSON.parse(text), retryAfter: answer.headers["retry-after"] };
}

const files = async () => (await author.call<any[]>("GET", `/books/${bookId}/files`)).body;

test("so many uploads of an account are under way at once; the next is told to come again, another author's is not", async () => {
  // RFC 6585, 4: too many requests, with the time after which it may be tried again.
  const under: ClientRequest[] = [];
  let refused = null;
  while (refused?.status !== 429) {
    const next = beginUpload(author, 10_000);
    under.push(next);
    refused = await Promise.race([answerOf(next), sleep(200).then(() => null)]);
  }
  expect(refused).toMatchObject({ body: { code: "uploads-at-once" }, retryAfter: "10" });
  const other = await server.client().signUp();
  const form = new FormData();
  form.set("file", new Blob(["Low water"]), "mine.txt");
  const own = await other.write([]);
  expect((await other.call("POST", `/books/${own}/files`, form)).status).toBe(201);
  for (const one of under) one.destroy();
  const sent = new FormData();
  sent.set("file", new Blob(["High water"]), "after.txt");
  while ((await author.call("POST", `/books/${bookId}/files`, sent)).status === 429);
  expect((await files()).map(({ name }) => name)).toContain("after.txt");
});

test("uploads that come a byte at a time are given up, and everybody is answered meanwhile", async () => {
  const slow = beginUpload(author, 10_000);
  const drip = setInterval(() => slow.write("x"), 500);
  const before = await files();
  const { status, body } = await answerOf(slow);
  clearInterval(drip);
  // RFC 9110, 15.5.9.
  expect([status, body.code]).toEqual([408, "too-slow"]);
  expect(await files()).toEqual(before);
});

test("a form that says that it is larger than may be is refused before it comes", async () => {
  const { status, body } = await answerOf(beginUpload(author, 400 * 1024 * 1024));
  expect([status, body.code]).toEqual([413, "too-large"]);
});

test("a form that does not say how long it is is refused, since no limit can be kept for it", async () => {
  const sending = request(`${author.url}/api/books/${bookId}/files`, {
    method: "POST",
    headers: {
      cookie: author.cookie,
      "content-type": "multipart/form-data; boundary=tide",
      "transfer-encoding": "chunked",
    },
  });
  sending.on("error", () => undefined);
  sending.write(head);
  const { status, body } = await answerOf(sending);
  sending.destroy();
  // RFC 9110, 15.5.12.
  expect([status, body.code]).toEqual([411, "length"]);
});

test("where a disk has no more room than its reserve, uploads and exports are refused and words are still saved", async () => {
  const full = await startTestServer({ DISK_RESERVE_MB: "1000000" });
  const writer = await full.client().signUp();
  const book = await writer.write([]);
  const form = new FormData();
  form.set("file", new Blob(["Low water"]), "mine.txt");
  // RFC 4918, 11.5.
  for (const [path, body] of [
    [`/books/${book}/files`, form],
    [`/books/${book}/exports`, { format: "markdown" }],
  ] as const) {
    const answer = await writer.call("POST", path, body);
    expect([path, answer.status, answer.body["code"]]).toEqual([path, 507, "no-room"]);
  }
  expect((await writer.call("PATCH", `/books/${book}`, { title: "Still written" })).status).toBe(200);
  await full.close();
});

test("of a form that is refused after it came nothing is left on disk", async () => {
  const left = () => readdirSync(tmpdir()).filter((name) => /^[0-9a-f]{32}$/.test(name));
  const before = left();
  const form = new FormData();
  form.set("manuscript", new Blob(["# T"]), "walks.md");
  form.set("baseAddress", "no address");
  expect((await author.call("POST", "/books/import", form)).status).toBe(400);
  while (left().length > before.length) await new Promise((resolve) => setTimeout(resolve, 20));
  const walks = await author.bringIn("# T\n\nLow water.");
  expect(walks.status).toBe(200);
  while (left().length > before.length) await new Promise((resolve) => setTimeout(resolve, 20));
});
