import { parse as parseDomain } from "tldts";
import { readHref, schemeOf, webDestination, type Destination } from "./destination.ts";
import { DestinationError } from "./errors.ts";

export interface Recognised {
  destination: Destination;
  /** What was changed to make it a destination, in words for the author; empty when nothing was. */
  mended: string[];
}

/**
 * Recognises what an author typed or pasted into the link line: a web address (with or without its
 * scheme) or an email address. Domains without a scheme are told from other words by the public
 * suffix list.
 * @throws DestinationError when it is neither; its message says what to do.
 */
export function recognise(typed: string): Recognised {
  const mended: string[] = [];
  const text = strip(typed, mended);
  if (text === "") throw new DestinationError("empty", "Paste or type where the link leads.");
  if (/^([a-z]:\\|\\\\|file:)/i.test(text)) {
    throw new DestinationError(
      "disk",
      "That is a place on your own disk. Readers cannot open it; give a web address.",
    );
  }
  if (isEmailAddress(text)) {
    return { destination: { kind: "email", address: "mailto:" + text }, mended };
  }
  const scheme = schemeOf(text);
  if (scheme === "mailto:") return { destination: readHref(text, null), mended };
  // "localhost:3000" and "tides.example:8080/a" have a port, not a scheme.
  const portAfterHost = /^[\w.-]+:\d{1,5}(?:[/?#]|$)/.test(text);
  if (scheme !== null && !portAfterHost) return { destination: webDestination(text), mended };
  if (looksLikeDomain(text)) {
    mended.push("https:// put before it");
    return { destination: webDestination("https://" + text), mended };
  }
  throw new DestinationError(
    "address",
    "That is not an address yet. A web address looks like https://tides.example/ or www.tides.example.",
  );
}

/**
 * Whether pasted text is, as a whole, an address that may link a selection without asking: it has
 * its scheme, begins with `www.`, or is an email address. A bare domain is not enough (common
 * practice).
 */
export function isPlainlyAnAddress(text: string): boolean {
  const seen = text.trim();
  if (/\s/.test(seen)) return false;
  if (isEmailAddress(seen)) return true;
  if (!/^(https?:\/\/|www\.|mailto:)/i.test(seen)) return false;
  try {
    recognise(seen);
    return true;
  } catch {
    return false;
  }
}

function strip(typed: string, mended: string[]): string {
  let text = withoutFinalStop(typed.trim(), mended);
  const wrapped = /^[<"'“„‘«](.*)[>"'”“’»]$/s.exec(text);
  if (wrapped) {
    text = wrapped[1]!.trim();
    mended.push("brackets or quotes around it taken off");
    text = withoutFinalStop(text, mended);
  }
  return text;
}

function withoutFinalStop(text: string, mended: string[]): string {
  if (!/[.,;]$/.test(text)) return text;
  mended.push("the full stop or comma at its end taken off");
  return text.replace(/[.,;\s]+$/, "");
}

function isEmailAddress(text: string): boolean {
  return /^[^\s@<>"(),:;[\]\\]+@[^\s@/]+\.[^\s@/.]+$/.test(text);
}

function looksLikeDomain(text: string): boolean {
  const host = text.split(/[/?#]/, 1)[0]!.replace(/:\d+$/, "");
  if (/\s/.test(text) || !host.includes(".")) return false;
  if (/\.(example|test)$/i.test(host)) return true;
  const domain = parseDomain(host);
  return Boolean(domain.isIcann && domain.domain);
}
