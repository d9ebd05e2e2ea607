import { createServer, type IncomingMessage, type RequestListener, type ServerResponse } from "node:http";
import { createServer as createTlsServer } from "node:https";
import type { AddressInfo } from "node:net";
import { lettersTo } from "../mail/letterbox.ts";
import { mailRecords } from "../mail/records.ts";
import { keptCertificates } from "./certificates.ts";
import { hold, letGo } from "./held-hosts.ts";
import { hostOf, hosts } from "./hosts.ts";

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
 * @param at the ports to listen on, 0 for any; and the file in which the certificates are kept for the next start
 */
export async function startStandInWeb(at: {
  httpPort: number;
  tlsPort: number;
  keptIn: string;
}): Promise<StandInWeb> {
  const names = Object.keys(hosts).filter((name) => hosts[name]!.certificate !== "other-name");
  const { contextFor, authority } = await keptCertificates(at.keptIn, names);
  const tally: Tally = {};
  const plain = createServer(listener("http", tally));
  const secure = createTlsServer(
    {
      SNICallback: (name, give) => {
        const state = hostOf(name)?.certificate;
        if (state === "none") give(new Error("This host has no certificate."));
        else give(null, contextFor(state));
      },
    },
    listener("https", tally),
  );
  const httpPort = await listen(plain, at.httpPort);
  const tlsPort = await listen(secure, at.tlsPort);
  return {
    httpPort,
    tlsPort,
    authority,
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
    const asked = new URL(path, "http://stand-in.test");
    if (asked.pathname === "/.name") return json(response, nameOf(asked.searchParams.get("host") ?? ""));
    if (asked.pathname === "/.mail")
      return json(response, mailRecords(asked.searchParams.get("domain") ?? ""));
    if (path === "/.hold" || path === "/.release") {
      (path === "/.hold" ? hold : letGo)();
      return json(response, null);
    }
    if (asked.pathname === "/.letters") return json(response, lettersTo(asked.searchParams.get("to")));
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

/** What a name server would say of a name. */
function nameOf(name: string): "known" | "unknown" | "fails" {
  const host = hostOf(name);
  return !host ? "unknown" : host.isLame ? "fails" : "known";
}

function answer(host: string, request: IncomingMessage, response: ServerResponse, url: URL): void {
  const known = hostOf(host);
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
  port: number,
): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once("error", reject);
    server.listen(port, "127.0.0.1", () => resolve((server.address() as AddressInfo).port));
  });
}
