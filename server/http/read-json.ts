import { largestChapter } from "@vennet/core/manuscript/chapter-size";
import { writableValue } from "@vennet/core/manuscript/writable-text";
import { json, type Request, type RequestHandler } from "express";
import type { SessionsService } from "../accounts/sessions.service.ts";
import { sessionToken } from "../accounts/session.guard.ts";
import { Problem } from "../errors/problem.ts";
import { shapeOf } from "./json-shape.ts";

const kilobyte = 1024;
const megabyte = 1024 * kilobyte;

/** What a route's body may be: its size, and how deep objects and lists may lie in each other. */
interface Allowed {
  bytes: number;
  levels: number;
  /** How long a list may be: each of its entries is judged by itself. */
  listed: number;
  told: string;
}

const small: Allowed = {
  bytes: 64 * kilobyte,
  levels: 32,
  listed: 20_000,
  told: "This is larger than 64 KB, which is more than is read here.",
};
/** A chapter's text. */
const text: Allowed = {
  bytes: largestChapter,
  levels: 1_000,
  listed: Infinity,
  told: "This chapter is larger than 4 MB. Divide it into two chapters.",
};
/** Thousands of links. */
const many: Allowed = {
  bytes: 2 * megabyte,
  levels: 32,
  listed: 20_000,
  told: "This is larger than 2 MB. Do it in smaller parts.",
};
const textPath = /^\/api\/books\/[^/]+\/(exports\/)?chapters(\/|$)/;
const manyPath = /^\/api\/books\/[^/]+\/(links|exports|reach|findings|history)(\/|$)/;

/** Why the bodies of these requests are not read. */
const refused = new WeakMap<object, Problem>();
const parsers = new Map(
  [small, text, many].map((allowed) => [
    allowed,
    json({
      limit: allowed.bytes,
      // Before it is parsed, which costs many times what this does.
      verify: (request, _response, bytes, encoding) => {
        const problem = problemOf(bytes, encoding, allowed);
        if (!problem) return;
        refused.set(request, problem);
        throw new Error(problem.message);
      },
    }),
  ]),
);

/**
 * Reads the body of a request where it is JSON. More than a little is read of those alone who are signed in, and
 * where a text or many links are sent. No request of this interface is a list. Signs that no file can hold are left out, so
 * that nothing is kept that cannot be exported.
 */
export function readJson(sessions: SessionsService): RequestHandler {
  return async (request, response, next) => {
    try {
      const allowed = await allowedFor(request, sessions);
      parsers.get(allowed)!(request, response, (error?: unknown) => {
        if (isTooLarge(error)) next(new Problem(413, "too-large", allowed.told));
        else {
          if (request.body) request.body = withWritableFields(request.body);
          next(refused.get(request) ?? error);
        }
      });
    } catch (error) {
      next(error);
    }
  };
}

/** Documents are judged, and made writable, where they are read. */
function withWritableFields(body: { document?: unknown }): object {
  const { document, ...fields } = body;
  return document === undefined ? writableValue(fields) : { ...writableValue(fields), document };
}

async function allowedFor(request: Request, sessions: SessionsService): Promise<Allowed> {
  const large = textPath.test(request.path) ? text : manyPath.test(request.path) ? many : small;
  if (large === small) return small;
  // What is small is read of everybody: the guards come to it later.
  if (announcedBytes(request) <= small.bytes) return large;
  const token = sessionToken(request);
  return token !== null && (await sessions.accountFor(token)) !== null ? large : small;
}

/** How long a body is, by its head: one that comes in chunks may be of any length (RFC 9112, 6.3). */
function announcedBytes({ headers }: Request): number {
  return headers["transfer-encoding"] === undefined ? Number(headers["content-length"] ?? 0) : Infinity;
}

function problemOf(body: Uint8Array, encoding: string, { levels, listed }: Allowed): Problem | undefined {
  // RFC 8259, 8.1.
  if (encoding !== "utf-8") return new Problem(415, "media-type", "JSON is sent in UTF-8.");
  const shape = shapeOf(body);
  if (shape.isList)
    return new Problem(400, "invalid", "A list was sent where an object with named fields is wanted.");
  if (shape.levels > levels)
    return new Problem(
      400,
      "too-deep",
      "What was sent has objects within each other deeper than any request.",
    );
  if (shape.longestList > listed) {
    const told = listed.toLocaleString("en");
    return new Problem(400, "too-many", `More than ${told} were sent at once. Do it in smaller parts.`);
  }
  return undefined;
}

const isTooLarge = (error: unknown): boolean => (error as { status?: number } | undefined)?.status === 413;
