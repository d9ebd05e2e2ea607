import type { IncomingMessage, ServerResponse } from "node:http";

/** How a host of the stand-ins answers one request. */
export type Answer = (request: IncomingMessage, response: ServerResponse, url: URL) => void;

export function escapeHtml(text: string): string {
  return text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);
}

const style =
  "body{font:16px/1.5 sans-serif;max-width:60rem;margin:2rem auto;padding:0 1rem}form{display:inline}td,th{padding:.2rem .8rem .2rem 0;text-align:left}pre{white-space:pre-wrap}";

/** Answers with a page: its title as heading, if no other is given, and a body that is HTML already. */
export function htmlPage(
  response: ServerResponse,
  request: IncomingMessage,
  title: string,
  body: string,
  heading = title,
): void {
  response.writeHead(200, { "content-type": "text/html; charset=utf-8" });
  const safe = escapeHtml(title);
  response.end(
    request.method === "HEAD"
      ? undefined
      : `<!doctype html><html lang="en"><meta charset="utf-8"><title>${safe}</title><style>${style}</style><h1>${escapeHtml(heading)}</h1>${body}</html>`,
  );
}
