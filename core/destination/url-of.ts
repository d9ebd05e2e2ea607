import type { WebDestination } from "./kinds/web.ts";

const parsed = new WeakMap<WebDestination, URL>();

/** A web destination's address as the URL standard reads it. It is read once, so nobody may change it. */
export function urlOf(destination: WebDestination): Readonly<URL> {
  let url = parsed.get(destination);
  if (!url) parsed.set(destination, (url = new URL(destination.address)));
  return url;
}
