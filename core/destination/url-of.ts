import type { WebDestination } from "./kinds/web.ts";

/** An address taken apart, each part as the URL standard's attribute of its name has it. */
export type AddressParts = Readonly<
  Pick<URL, "protocol" | "username" | "password" | "host" | "hostname" | "port" | "pathname" | "search">
>;

const parsed = new WeakMap<WebDestination, AddressParts>();

/**
 * A web destination's address as the URL standard reads it. It is taken apart once: what rules ask of it again and
 * again are strings then, and no getters that cut them out anew.
 */
export function urlOf(destination: WebDestination): AddressParts {
  let parts = parsed.get(destination);
  if (!parts) parsed.set(destination, (parts = partsOf(destination.address)));
  return parts;
}

/** @throws TypeError where it is no address, which no web destination has. */
export function partsOf(address: string): AddressParts {
  const { protocol, username, password, host, hostname, port, pathname, search } = new URL(address);
  return { protocol, username, password, host, hostname: oneOf(hostname), port, pathname, search };
}

const kept = 20_000;
const names = new Map<string, string>();

/** The same string for the same host, however many addresses have it: what is known of hosts is found by it at once. */
function oneOf(host: string): string {
  const known = names.get(host);
  if (known !== undefined) return known;
  if (names.size >= kept) names.clear();
  names.set(host, host);
  return host;
}
