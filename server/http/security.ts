import { parseUrl } from "@vennet/core/destination/parse-url";
import { isIP } from "node:net";
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
 * Refuses a request that calls this server by a name that is not its own: a page whose name was led to this address
 * after it was opened (DNS rebinding) would count as one of this server's. An address of numbers cannot be led elsewhere.
 */
export function checkHost({ ownNames }: Settings): RequestHandler {
  const own = new Set(["localhost", ...ownNames]);
  return (request, _response, next) => {
    const host = hostNameOf(request.headers.host);
    if (host !== null && (isIP(host) !== 0 || own.has(host) || host.endsWith(".localhost"))) return next();
    // RFC 9110, 15.5.20.
    next(
      new Problem(
        421,
        "host",
        `This server does not go by the name ${host === null ? "that was asked for" : `“${host}”`}. Whoever runs it adds the name to VENNET_HOSTS.`,
      ),
    );
  };
}

function hostNameOf(host: string | undefined): string | null {
  if (host === undefined || !/^[\w.:[\]-]+$/.test(host) || parseUrl(`http://${host}`) === null) return null;
  return new URL(`http://${host}`).hostname.replace(/^\[|\]$|\.$/g, "");
}

/**
 * Refuses a writing request that another site's page sent, or this site's own without TLS where it has it. A browser
 * always names the origin then; a script that is not a browser names none, and has no cookie that it was not given.
 */
export function checkOrigin({ publicAddress }: Settings): RequestHandler {
  const publicOrigin = publicAddress && new URL(publicAddress).origin;
  return (request, _response, next) => {
    if (["GET", "HEAD", "OPTIONS"].includes(request.method)) return next();
    const { origin } = request.headers;
    const site = request.headers["sec-fetch-site"];
    const sameOrigin = origin === `${request.protocol}://${request.headers.host}` || origin === publicOrigin;
    const noBrowser =
      origin === undefined && (site === undefined || site === "same-origin" || site === "none");
    if ((origin !== undefined && sameOrigin) || noBrowser) return next();
    next(
      new Problem(
        403,
        "origin",
        "This request comes from another site’s page, so it was refused. Where this server stands behind a proxy, PUBLIC_ADDRESS has to say how it is reached.",
      ),
    );
  };
}

/** Answers are an author's own, so nobody on the way and no browser keeps them; a file that may be kept says so itself. */
export const neverKept: RequestHandler = (_request, response, next) => {
  response.setHeader("Cache-Control", "no-store");
  next();
};
