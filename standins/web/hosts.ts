import type { Host } from "./answering.ts";
import { faultyHosts } from "./faulty-hosts.ts";
import { hostileHost } from "./hostile-hosts.ts";
import { heldHost } from "./held-hosts.ts";
import { largeHost } from "./large-web.ts";
import { ordinaryHosts } from "./ordinary-hosts.ts";

/**
 * The hosts of the stand-in web that are listed. Each shows one way in which a server on the real web
 * answers; all are under names kept for examples and tests.
 */
export const hosts: Record<string, Host> = { ...ordinaryHosts, ...faultyHosts };

/** The host of a name, listed, held, hostile or generated; null where there is none. */
export function hostOf(name: string): Host | null {
  return (
    (Object.hasOwn(hosts, name) ? hosts[name]! : null) ??
    heldHost(name) ??
    hostileHost(name) ??
    largeHost(name)
  );
}
