import { once } from "node:events";
import net, { type AddressInfo } from "node:net";
import tls from "node:tls";
import { afterEach, expect, test } from "@jest/globals";
import { generate } from "selfsigned";
import { Agent, request } from "undici";
import { failureOf } from "./failure-of.ts";

const opened: net.Server[] = [];
afterEach(() => opened.splice(0).forEach((server) => server.close()));

/** What is thrown where a server is asked by https. */
async function thrown(server: net.Server, connect: tls.ConnectionOptions = {}): Promise<unknown> {
  opened.push(server.listen(0, "127.0.0.1"));
  await once(server, "listening");
  const dispatcher = new Agent({ connect });
  const { port } = server.address() as AddressInfo;
  const error = await request(`https://127.0.0.1:${port}/`, { dispatcher }).catch((one: unknown) => one);
  await dispatcher.close();
  return error;
}

const certificate = async (): Promise<tls.TlsOptions> => {
  const { private: key, cert } = await generate([{ name: "commonName", value: "tides.example" }]);
  return { key, cert };
};

test("a server that speaks no TLS does not answer by https", async () => {
  const plain = net.createServer((socket) => socket.end("HTTP/1.1 400 Bad Request\r\n\r\n"));
  expect(failureOf(await thrown(plain))).toEqual({ code: "tls-none" });
});

test("one that encrypts in other ways alone is no proof that readers cannot reach it", async () => {
  const old = tls.createServer({ ...(await certificate()), maxVersion: "TLSv1.2" });
  expect(failureOf(await thrown(old, { minVersion: "TLSv1.3" }))).toMatchObject({ code: "tls-handshake" });
});

test("one that vouches for itself is told so", async () => {
  expect(failureOf(await thrown(tls.createServer(await certificate())))).toEqual({ code: "tls-self-signed" });
});
