import { AsyncLocalStorage } from "node:async_hooks";
import type { RequestHandler } from "express";

const acting = new AsyncLocalStorage<{ accountId: string | null }>();

/** Gives each request a place for the account that acts in it. */
export const rememberActing: RequestHandler = (_request, _response, next) =>
  acting.run({ accountId: null }, next);

/** Says who acts in the request that is answered now. */
export function actAs(accountId: string): void {
  const here = acting.getStore();
  if (here) here.accountId = accountId;
}

/** Does something in the name of an account, such as a job that it began; null for what begins by the calendar. */
export function actingAs<T>(accountId: string | null, work: () => T): T {
  return acting.run({ accountId }, work);
}

/** The account in whose name is written what is written now; null where nobody's. */
export function actingAccount(): string | null {
  return acting.getStore()?.accountId ?? null;
}
