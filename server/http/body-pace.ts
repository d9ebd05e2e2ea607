import type { Request, RequestHandler } from "express";
import type { Settings } from "../settings.ts";

const lookMs = 5_000;
/** A connection may falter for a moment: so many looks in a row have to find it too slow. */
const patience = 3;

/**
 * Ends a request whose body comes too slowly, or takes too long in all, so that nobody can hold a place here by
 * sending a byte now and then (RFC 9110, 15.5.9).
 */
export function keepPace({ bodyPace, bodySeconds }: Settings): RequestHandler {
  return (request, response, next) => {
    if (!hasBody(request)) return next();
    const { socket } = request;
    const until = performance.now() + bodySeconds * 1000;
    let before = socket.bytesRead;
    let slowLooks = 0;
    const end = (): void => clearInterval(timer);
    const timer = setInterval(() => {
      if (request.complete) return end();
      const came = socket.bytesRead - before;
      before = socket.bytesRead;
      // What has come and waits here is not the sender's slowness.
      const isSlow = came < (bodyPace * lookMs) / 1000 && request.readableLength === 0;
      slowLooks = isSlow ? slowLooks + 1 : 0;
      if (slowLooks < patience && performance.now() < until) return;
      end();
      refuse();
    }, lookMs);
    const refuse = (): void => {
      const message = isOver()
        ? "This took too long to arrive, and was given up; nothing was kept of it. Send it in smaller parts."
        : "This came too slowly, and was given up; nothing was kept of it. Try it again over a better connection.";
      if (!response.headersSent)
        response.status(408).set("Connection", "close").json({ code: "too-slow", message });
      // The answer goes out first.
      setImmediate(() => request.destroy());
    };
    const isOver = (): boolean => performance.now() >= until;
    response.once("close", end);
    next();
  };
}

function hasBody({ headers }: Request): boolean {
  return headers["transfer-encoding"] !== undefined || Number(headers["content-length"] ?? 0) > 0;
}
