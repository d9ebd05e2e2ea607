import type { RequestHandler } from "express";
import helmet from "helmet";
import { Problem } from "../errors/problem.ts";
import type { Settings } from "../settings.ts";

/**
 * The headers of every answer. No inline script runs; styles may be inline, since the interface's
 * positioning and drag and drop set them.
 */
export function securityHeaders({ standIns }: Settings): RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        // Pictures of an exported e-book are written into the page that shows it.
        imgSrc: ["'self'", "data:"],
        connectSrc: ["'self'"],
        fontSrc: ["'self'"],
        // The reader of exported files shows pages of the stand-in web, where one runs, and of no other.
        frameSrc: ["'self'", ...(standIns ? [`http://127.0.0.1:${standIns.httpPort}`] : [])],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    // The application is served over plain HTTP on loopback; whoever puts it behind TLS sets this there.
    strictTransportSecurity: false,
    referrerPolicy: { policy: "no-referrer" },
  }) as RequestHandler;
}

/**
 * Refuses a writing request that another site's page sent. A browser always names the origin then; a
 * script that is not a browser names none, and has no cookie that it was not given.
 */
export const checkOrigin: RequestHandler = (request, _response, next) => {
  if (["GET", "HEAD", "OPTIONS"].includes(request.method)) return next();
  const origin = request.headers.origin;
  const site = request.headers["sec-fetch-site"];
  const sameOrigin =
    origin !== undefined && URL.canParse(origin) && new URL(origin).host === request.headers.host;
  const noBrowser = origin === undefined && (site === undefined || site === "same-origin" || site === "none");
  if (sameOrigin || noBrowser) return next();
  next(new Problem(403, "origin", "This request comes from another site's page, so it was refused."));
};

/** Answers are an author's own, so nobody on the way and no browser keeps them; a file that may be kept says so itself. */
export const neverKept: RequestHandler = (_request, response, next) => {
  response.setHeader("Cache-Control", "no-store");
  next();
};
