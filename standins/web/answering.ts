import type { IncomingMessage } from "node:http";
import { htmlPage, type Answer } from "../answers.ts";

/** What each path of a host answers; a path that is not listed answers as the host does. */
export interface Host {
  otherwise: Answer;
  paths?: Record<string, Answer>;
  /** What its certificate is like, where it is not as it should be. */
  certificate?: "expired" | "ending" | "other-name" | "self-signed" | "unchained" | "none";
  /** Whether its name servers fail to answer. */
  isLame?: true;
}

/** No page of the ordinary hosts has a longer name, so that a name that cannot exist is told from theirs. */
const longestName = 30;

/** A page whose title tells the host and the path. */
export const page =
  (title: string): Answer =>
  (request, response, url) => {
    const name = url.pathname.split("/").at(-1)!;
    if (name.length > longestName) return status(404, "No such page.")(request, response, url);
    const shown = `${title}${url.pathname === "/" ? "" : ` — ${decodeURIComponent(url.pathname.slice(1)).replace(/[-/]/g, " ")}`}`;
    htmlPage(response, request, shown, `<p>A page of the stand-in web: ${url.host}.</p>`);
  };

/** A page of fixed title and body, the same under every path. */
export const fixedPage =
  (title: string, body: string): Answer =>
  (request, response) =>
    htmlPage(response, request, title, body);

export const status =
  (code: number, text: string, headers: Record<string, string> = {}): Answer =>
  (_request, response) => {
    response.writeHead(code, { "content-type": "text/plain; charset=utf-8", ...headers });
    response.end(text);
  };

export const redirect =
  (code: number, target: (url: URL) => string): Answer =>
  (_request, response, url) => {
    response.writeHead(code, { location: target(url) });
    response.end();
  };

/** Bytes of any type as they are. */
export const bytes =
  (type: string, content: Uint8Array, headers: Record<string, string> = {}): Answer =>
  (request, response) => {
    response.writeHead(200, { "content-type": type, ...headers });
    response.end(request.method === "HEAD" ? undefined : content);
  };

/** Answers as `before` for the first questions to a path, and as `after` from then on. */
export function after(count: number, before: Answer, then: Answer): Answer {
  const asked = new Map<string, number>();
  return (request, response, url) => {
    const seen = asked.get(url.pathname) ?? 0;
    asked.set(url.pathname, seen + 1);
    (seen < count ? before : then)(request, response, url);
  };
}

/** Refuses who asks more often than so many times within a second. */
export function limited(perSecond: number, then: Answer): Answer {
  let times: number[] = [];
  return (request, response, url) => {
    const now = Date.now();
    times = times.filter((time) => now - time < 1000);
    if (times.length >= perSecond)
      return status(429, "Too many.", { "retry-after": "1" })(request, response, url);
    times.push(now);
    then(request, response, url);
  };
}

/** Whether a request asks for the head alone. */
export const isHead = (request: IncomingMessage): boolean => request.method === "HEAD";
