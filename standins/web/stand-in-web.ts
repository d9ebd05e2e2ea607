import { createServer, type IncomingMessage, type RequestListener, type ServerResponse } from "node:http";
import { createServer as createTlsServer } from "node:https";
import type { AddressInfo } from "node:net";
import { generate } from "selfsigned";
import { hosts } from "./hosts.ts";

/** How often each `METHOD host/path` has been asked, since the start or the last reading. */
export type Tally = Record<string, number>;

export interface StandInWeb {
  httpPort: number;
  tlsPort: number;
  /** The certificate that its hosts show, as PEM: whoever asks them has to trust it. */
  authority: string;
  close: () => Promise<void>;
}

/**
 * Starts the stand-in web on loopback: one HTTP and one HTTPS server that tell hosts apart by the name in
 * the request. Browsers, which cannot resolve the reserved names, reach a host as `/~/host/path`.
 */
export async function startStandInWeb(): Promise<StandInWeb> {
  const names = Object.keys(hosts);
  const { private: key, cert } = await generate([{ name: "commonName", value: "Vennet stand-in web" }], {
    keySize: 2048,
    algorithm: "sha256",
    extensions: [
      { name: "basicConstraints", cA: true },
      { name: "subjectAltName", altNames: names.map((value) => ({ type: 2, value })) },
    ],
  });
  const tally: Tally = {};
  const plain = createServer(listener("http", tally));
  const secure = createTlsServer({ key, cert }, listener("https", tally));
  const httpPort = await listen(plain);
  const tlsPort = await listen(secure);
  return {
    httpPort,
    tlsPort,
    authority: cert,
    close: async () => {
      for (const server of [plain, secure]) {
        server.closeAllConnections();
        await new Promise((resolve) => server.close(resolve));
      }
    },
  };
}

function listener(scheme: string, tally: Tally): RequestListener {
  return (request, response) => {
    const path = request.url ?? "/";
    if (path === "/.names") return json(response, Object.keys(hosts));
    if (path === "/.tally") {
      json(response, tally);
      for (const key of Object.keys(tally)) delete tally[key];
      return;
    }
    const window = /^\/~\/([^/?]+)(.*)$/.exec(path);
    const host = window ? window[1]! : (request.headers.host ?? "").replace(/:\d+$/, "");
    const url = new URL(window ? window[2] || "/" : path, `${scheme}://${host}`);
    const key = `${request.method} ${host}${url.pathname}`;
    tally[key] = (tally[key] ?? 0) + 1;
    answer(host, request, response, url);
  };
}

function answer(host: string, request: IncomingMessage, response: ServerResponse, url: URL): void {
  const known = hosts[host];
  if (!known) {
    response.writeHead(404, { "content-type": "text/plain" }).end(`The stand-in web has no host ${host}.`);
    return;
  }
  (known.paths?.[url.pathname] ?? known.otherwise)(request, response, url);
}

function json(response: ServerResponse, value: unknown): void {
  response.writeHead(200, { "content-type": "application/json" });
  response.end(JSON.stringify(value));
}

function listen(
  server: ReturnType<typeof createServer> | ReturnType<typeof createTlsServer>,
): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once("error", reject);
    server.listen(0, "127.0.0.1", () => resolve((server.address() as AddressInfo).port));
  });
}
