import { spawn } from "node:child_process";
import { once } from "node:events";
import http from "node:http";
import https from "node:https";
import net, { type AddressInfo } from "node:net";
import { afterEach, expect, test } from "@jest/globals";
import { generate } from "selfsigned";
import { Agent, request } from "undici";
import { failureOf } from "./failure-of.ts";
import { judgedConnector } from "./judged-connector.ts";

const ending: (() => unknown)[] = [];
afterEach(() => Promise.all(ending.splice(0).map((end) => end())));

/** Where nobody listens at a port that a server has at 127.0.0.1. */
const nobody = "127.0.0.2";

async function listening(server: net.Server): Promise<number> {
  server.listen(0, "127.0.0.1");
  ending.push(() => server.close());
  await once(server, "listening");
  return (server.address() as AddressInfo).port;
}

/** What a host with these addresses answers, and of which hosts it was told that they are secure. */
async function ask(
  origin: string,
  addresses: string[],
  more: { timeout?: number; ca?: string } = {},
): Promise<{ status: number; secured: string[] }> {
  const secured: string[] = [];
  const agent = new Agent({
    connect: judgedConnector(
      (_host, port) => Promise.resolve({ addresses, port, isStandIn: more.ca !== undefined }),
      more.timeout ?? 60_000,
      more.ca,
      (host) => secured.push(host),
    ),
  });
  ending.push(() => agent.destroy());
  const { statusCode, body } = await request(origin, { dispatcher: agent });
  await body.dump();
  return { status: statusCode, secured };
}

test.each([
  ["the first", ["127.0.0.1", nobody]],
  ["the second", [nobody, "127.0.0.1"]],
  ["the last, of the other family", ["::1", nobody, "127.0.0.1"]],
])("a host is there where %s of its addresses answers", async (_, addresses) => {
  const port = await listening(http.createServer((_request, answer) => answer.end("low water")));
  expect(await ask(`http://tides.example:${port}/`, addresses)).toEqual({ status: 200, secured: [] });
});

test("by https too, with the name that was asked for", async () => {
  const { private: key, cert } = await generate([{ name: "commonName", value: "tides.example" }], {
    extensions: [{ name: "subjectAltName", altNames: [{ type: 2, value: "tides.example" }] }],
  });
  const port = await listening(
    https.createServer({ key, cert }, (_request, answer) => answer.end("low water")),
  );
  const asked = await ask(`https://tides.example:${port}/`, [nobody, "127.0.0.1"], { ca: cert });
  expect(asked).toEqual({ status: 200, secured: ["tides.example"] });
  const other = ask(`https://huts.example:${port}/`, [nobody, "127.0.0.1"], { ca: cert });
  expect(failureOf(await other.catch((error: unknown) => error))).toEqual({ code: "tls-name" });
});

test("one that lets connections wait is not waited for where it has another address", async () => {
  const port = await listening(http.createServer((_request, answer) => answer.end("low water")));
  // It sleeps from then on, and accepts nothing; no more than two may wait.
  const sleeps = "() => Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0)";
  const listens = `require("node:net").createServer().listen(${port}, "${nobody}", 1, () => process.send("it does", ${sleeps}))`;
  const silent = spawn(process.execPath, ["-e", listens], { stdio: ["ignore", "inherit", "inherit", "ipc"] });
  ending.push(() => silent.kill("SIGKILL"));
  await once(silent, "message");
  const waiting = Array.from({ length: 8 }, () => net.connect(port, nobody).on("error", () => undefined));
  ending.push(() => waiting.forEach((socket) => socket.destroy()));
  await Promise.all(waiting.slice(0, 2).map((socket) => once(socket, "connect")));
  expect((await ask(`http://tides.example:${port}/`, [nobody, "127.0.0.1"], { timeout: 3_000 })).status).toBe(
    200,
  );
});

test("a host none of whose addresses answers is told by what says most", async () => {
  const port = await listening(net.createServer());
  const asked = ask(`http://tides.example:${port}/`, [nobody, "127.0.0.3"]);
  expect(failureOf(await asked.catch((error: unknown) => error))).toEqual({ code: "refused" });
  const told = (...codes: string[]) =>
    failureOf(new AggregateError(codes.map((code) => Object.assign(new Error(code), { code }))));
  expect(told("ENETUNREACH", "ECONNREFUSED")).toEqual({ code: "refused" });
  expect(told("ENETUNREACH", "ETIMEDOUT")).toEqual({ code: "timeout" });
  expect(told("ENETUNREACH", "EHOSTUNREACH")).toEqual({ code: "dropped" });
});
