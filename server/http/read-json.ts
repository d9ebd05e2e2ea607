import { json, type Request, type RequestHandler } from "express";
import type { AccountsService } from "../accounts/accounts.service.ts";
import { sessionToken } from "../accounts/session.guard.ts";
import { Problem } from "../errors/problem.ts";

const smallBytes = 64 * 1024;
const small = json({ limit: smallBytes });
const large = json({ limit: "50mb" });
/** What may hold a whole text, or thousands of links. */
const largePath = /^\/api\/books\/[^/]+\/(chapters|links|exports|reach|findings|history)(\/|$)/;

/**
 * Reads the body of a request where it is JSON. More than a little is read of those alone who are signed in, and
 * where a text or many links are sent. No request of this interface is a list.
 */
export function readJson(accounts: AccountsService): RequestHandler {
  return async (request, response, next) => {
    try {
      const read = (await mayBeLarge(request, accounts)) ? large : small;
      read(request, response, (error?: unknown) => {
        if (error) next(read === small && isTooLarge(error) ? tooLarge() : error);
        else if (Array.isArray(request.body))
          next(new Problem(400, "invalid", "A list was sent where an object with named fields is wanted."));
        else next();
      });
    } catch (error) {
      next(error);
    }
  };
}

async function mayBeLarge(request: Request, accounts: AccountsService): Promise<boolean> {
  if (!largePath.test(request.path) || Number(request.headers["content-length"] ?? Infinity) <= smallBytes)
    return false;
  const token = sessionToken(request);
  return token !== null && (await accounts.accountFor(token)) !== null;
}

const isTooLarge = (error: unknown): boolean => (error as { status?: number }).status === 413;

const tooLarge = (): Problem =>
  new Problem(413, "too-large", "This is larger than 64 KB, which is more than is read here.");
