import type { Hop } from "@vennet/core/reach/outcome";

const mostRedirects = 5;

/** What asking for something whole came to. */
export interface Fetched {
  hop: Hop;
  /** Null where it is too long, or nothing came. */
  bytes: Uint8Array | null;
}

/**
 * Fetches what is at the end of an address's redirects.
 * @param ask fetches one address, without following it
 * @returns what came and from where; or why there is no end
 */
export async function behindRedirects(
  address: string,
  ask: (at: string) => Promise<Fetched>,
): Promise<(Fetched & { at: string }) | { problem: "no-address" | "no-end" }> {
  let at = address;
  for (let hops = 0; hops <= mostRedirects; hops++) {
    const fetched = await ask(at);
    const { status, location } = fetched.hop;
    if (status === null || status < 300 || status >= 400 || location === null) return { ...fetched, at };
    if (!URL.canParse(location, at)) return { problem: "no-address" };
    at = new URL(location, at).href;
  }
  return { problem: "no-end" };
}
