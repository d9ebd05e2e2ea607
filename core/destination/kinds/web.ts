import { parseUrl } from "../parse-url.ts";
import { parse as parseDomain } from "tldts";
import { DestinationError } from "../errors.ts";
import { schemeOf } from "../scheme.ts";
import type { Asked, DestinationKindOf } from "./kind.ts";

/** A page on the web. `address` is an absolute http or https URL as the WHATWG URL standard writes it. */
export interface WebDestination {
  kind: "web";
  address: string;
}

const schemes = ["http:", "https:"];

/**
 * Reads a web address into a destination.
 * @throws DestinationError `scheme` for another scheme than http and https, `address` for no valid URL.
 */
export function webDestination(address: string): WebDestination {
  const scheme = schemeOf(address);
  if (scheme !== null && !schemes.includes(scheme)) {
    throw new DestinationError(
      "scheme",
      `An address that begins with “${scheme}” cannot be a link. Web addresses begin with http:// or https://.`,
    );
  }
  const url = parseUrl(address);
  if (!url || url.hostname === "") {
    throw new DestinationError(
      "address",
      `“${shorten(address)}” is not a web address. It needs a host, as in https://tides.example/.`,
    );
  }
  return { kind: "web", address: url.href };
}

/** A web address as it is asked for: without its fragment. */
export function askedAddress(address: string): string {
  return askedOfWeb(address).address;
}

/** What is asked of a web address, and its host. */
export function askedOfWeb(address: string): Asked {
  const { href, host } = new URL(address);
  // As the URL standard writes an address, # begins its fragment and nothing else.
  return { address: href.replace(/#.*$/s, ""), host };
}

/** The host of a web address, without `www.`. */
export function hostOf(address: string): string {
  return new URL(address).host.replace(/^www\./, "");
}

/** Web: a page, by its full address. */
export const web: DestinationKindOf<WebDestination> = {
  schemes,
  becomes: "Links to their full addresses.",
  fromAddress: webDestination,
  fromTyped: (text) => {
    // "localhost:3000" and "tides.example:8080/a" have a port, not a scheme.
    const portAfterHost = /^[\w.-]+:\d{1,5}(?:[/?#]|$)/.test(text);
    if (schemeOf(text) !== null && !portAfterHost) return { destination: webDestination(text) };
    if (!looksLikeDomain(text)) return null;
    return { destination: webDestination("https://" + text), mended: "https:// put before it" };
  },
  isPlain: (word) => /^(https?:\/\/[^\s/?#]|www\.[^\s.]+\.)/i.test(word),
  assert: (_, text) => void webDestination(text("address")),
  write: ({ address }) => address,
  name: ({ address }) => address,
  short: ({ address }) => hostOf(address),
  asked: ({ address }) => askedOfWeb(address),
  outside: ({ address }) => ({ kind: "address", address }),
};

/** Domains without a scheme are told from other words by the public suffix list. */
function looksLikeDomain(text: string): boolean {
  const host = text.split(/[/?#]/, 1)[0]!.replace(/:\d+$/, "");
  if (/\s/.test(text) || !host.includes(".")) return false;
  if (/\.(example|test)$/i.test(host)) return true;
  const domain = parseDomain(host);
  return Boolean(domain.isIcann && domain.domain);
}

function shorten(text: string): string {
  return text.length > 80 ? text.slice(0, 79) + "…" : text;
}
