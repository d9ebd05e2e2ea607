import { urlOf } from "../destination/url-of.ts";
import { byHost } from "./by-host.ts";
import type { LinkRule } from "./finding.ts";

/** Whether a host is one of its author’s own machine or network, as the URL parser writes it. */
export const isOwnHost = byHost((name) => {
  const host = mappedAddress(name) ?? name;
  if (/^\[/.test(host)) return /^\[(?:::1?\]|f[cd]|fe[89ab])/i.test(host);
  if (/^\d+\.\d+\.\d+\.\d+$/.test(host))
    return /^(?:0|10|127|100\.(?:6[4-9]|[7-9]\d|1[01]\d|12[0-7])|169\.254|192\.168|172\.(?:1[6-9]|2\d|3[01]))\./.test(
      host,
    );
  return !host.includes(".") || /\.(?:localhost|local|lan|internal|intranet|home\.arpa)$/i.test(host);
});

/** The IPv4 address that one of IPv6 stands for (RFC 4291, section 2.5.5.2), as the URL parser writes it. */
function mappedAddress(host: string): string | null {
  const [, high, low] = /^\[::ffff:([\da-f]{1,4}):([\da-f]{1,4})\]$/i.exec(host) ?? [];
  if (high === undefined || low === undefined) return null;
  return [high, low].flatMap((part) => [parseInt(part, 16) >> 8, parseInt(part, 16) & 255]).join(".");
}

/** An address that works on the author’s own machine or network alone. */
export const ownNetwork: LinkRule = {
  id: "own-network",
  title: "An address of one’s own network",
  severity: "fix",
  source:
    "RFC 1918, RFC 4193, RFC 6598, RFC 6761, RFC 6762 (from memory): such names and addresses mean nothing elsewhere",
  find: ({ destination }) =>
    destination.kind === "web" && isOwnHost(urlOf(destination).hostname)
      ? "The address is one of your own machine or network, and readers cannot reach it. Give a public one."
      : null,
};
