import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { connect } from "node:net";
import { startTestServer, type TestServer } from "../test/test-server.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

/** What the server answers to bytes, until it ends the connection. */
async function answerTo(bytes: string): Promise<{ head: string; body: unknown }> {
  const { hostname, port } = new URL(server.url);
  const socket = connect(Number(port), hostname);
  socket.write(bytes);
  const all = (await socket.setEncoding("utf8").toArray()).join("");
  const [head = "", body = ""] = all.split("\r\n\r\n");
  return { head, body: JSON.parse(body) };
}

test("a request that is longer than Node takes is told as that, in the shape of all errors", async () => {
  const author = await server.client().signUp();
  const { body } = await author.bringIn("# T\n\n[a](https://tides.example/)");
  const long = "tide".repeat(5_000);
  const answer = await author.call("GET", `/books/${body.book.id}/links?search=${long}`);
  expect([answer.status, answer.body]).toEqual([
    431,
    { code: "too-long", message: expect.stringMatching(/more than 16,384 letters/) },
  ]);
});

test("what is no request is told as that", async () => {
  const { head, body } = await answerTo("TIDES\r\n\r\n");
  expect(head).toMatch(/^HTTP\/1\.1 400 Bad Request\r\n/);
  expect(head).toMatch(/Connection: close/);
  expect(body).toMatchObject({ code: "bad-request" });
});
