import type { Answer } from "../answers.ts";
import { bytes, isHead, page, redirect, type Host } from "./answering.ts";

/** Writes a byte now and then, and never comes to an end. */
const dripping =
  (status: number, type: string): Answer =>
  (request, response) => {
    response.writeHead(status, { "content-type": type, "content-length": "60000" }).flushHeaders();
    if (isHead(request)) return void response.end();
    const timer = setInterval(() => response.write(" "), 700);
    response.once("close", () => clearInterval(timer));
  };

/** Says again and again that the answer is on its way (RFC 8297), and never gives it. */
const early: Answer = (request, response) => {
  const say = (): void =>
    void request.socket.write("HTTP/1.1 103 Early Hints\r\nLink: </tide.css>; rel=preload\r\n\r\n");
  say();
  const timer = setInterval(say, 300);
  response.once("close", () => clearInterval(timer));
};

const twoMegabytes = 2 * 1024 * 1024;
const filled = (piece: string, whole = ""): Answer =>
  bytes("text/html", Buffer.from(`${whole}${piece.repeat(Math.ceil(twoMegabytes / piece.length))}`));

/** What each path of a hostile host does to whoever asks; the others are plain pages. */
const paths: Record<string, Answer> = {
  "/drip": dripping(200, "text/html"),
  "/drip-missing": dripping(404, "text/html"),
  "/drip-file": dripping(200, "application/pdf"),
  "/robots.txt": dripping(200, "text/plain"),
  "/early": early,
  // Each redirect takes its time, and there is always one more.
  "/slow-redirects": (request, response, url) => {
    const next = Number(url.searchParams.get("n") ?? 0) + 1;
    setTimeout(() => redirect(302, () => `/slow-redirects?n=${next}`)(request, response, url), 900).unref();
  },
  "/deep": filled("<div>"),
  "/deep-lists": filled("<ul><li>"),
  "/attributes": filled(" tide=1", "<title>Many</title><p"),
  "/one-word": filled("tide", "<title>"),
  "/comments": filled("<!--", ""),
};

/** A host that does what it can to be in the way: `1.hostile.test` and so on, each with all of the ways. */
export function hostileHost(name: string): Host | null {
  return /^[a-z0-9-]+\.hostile\.test$/.test(name)
    ? { certificate: "none", otherwise: page("A hostile host"), paths }
    : null;
}
