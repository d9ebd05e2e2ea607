import type { Hop } from "@vennet/core/reach/outcome";
import { VisitCookies } from "./visit-cookies.ts";

const mostRedirects = 5;

/** What asking for something whole came to. */
export interface Fetched {
  hop: Hop;
  /** Null where it is too long, or nothing came. */
  bytes: Uint8Array | null;
}

/**
 * Fetches what is at the end of an address's redirects.
 * @param ask fetches one address, without following it, with the cookies that were set on the way
 * @returns what came and from where; or why there is no end
 */
export async function behindRedirects(
  address: string,
  ask: (at: string, cookies: VisitCookies) => Promise<Fetched>,
): Promise<(Fetched & { at: string }) | { problem: "no-address" | "no-end" }> {
  const cookies = new VisitCookies();
  let at = address;
  for (let hops = 0; hops <= mostRedirects; hops++) {
    const fetched = await ask(at, cookies);
    const { status, location } = fetched.hop;
    if (status === null || status < 300 || status >= 400 || location === null) return { ...fetched, at };
    if (!URL.canParse(location, at)) return { problem: "no-address" };
    at = new URL(location, at).href;
  }
  return { problem: "no-end" };
}
