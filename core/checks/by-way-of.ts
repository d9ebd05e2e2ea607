import { webDestination } from "../destination/kinds/web.ts";
import { percentDecoded } from "../destination/percent-decoded.ts";
import { parseUrl } from "../destination/parse-url.ts";
import { urlOf } from "../destination/url-of.ts";
import type { LinkAlone, LinkRule } from "./finding.ts";

/** What pages are called, by their last name or their host's first, that only send readers on (common practice). */
const sendsOn =
  /^(?:url|u|l|r|rd|ct|cl|to|go|goto|out|outgoing|outlink|outbound|exit|leave|leaving|away|jump|deref|redir|redirect|redirector|link|linkfilter|external|click|track|tracking|safelinks?|urldefense)(?:\.(?:php|aspx?|html?|cgi|do))?$/i;
/** Under which names they are told where to. */
const whereTo =
  /^(?:q|u|url|uri|to|l|r|t|target|dest|destination|link|href|goto|redir|redirect(?:_?(?:url|uri|to))?|adurl|out|murl)$/i;

/** An address that a program put around another, as pages of mails and of shared documents have them. */
export const byWayOf: LinkRule = {
  id: "by-way-of",
  title: "An address leads by way of another page",
  severity: "consider",
  source:
    "common practice: programs put such addresses around those of an author, by which readers are counted and may be asked on the way",
  find: (link) => {
    const way = wayOf(link);
    return (
      way &&
      `${shortened(way.host)} only sends readers on, and learns who comes. Give the address at the end, on ${shortened(way.end.hostname)}.`
    );
  },
  // By pages of other names authors may be paid.
  isSure: (link) => /^(?:url|safelinks?|l\.php|linkfilter|deref|urldefense)$/i.test(wayOf(link)?.page ?? ""),
  mend: (link) => {
    const way = wayOf(link);
    return way && { destination: webDestination(way.end.href) };
  },
};

const shortened = (host: string): string => (host.length > 50 ? `${host.slice(0, 50)}…` : host);

/** The page by which readers are sent to another host, where that is its one purpose, and where it sends them. */
function wayOf({
  destination,
}: Pick<LinkAlone, "destination">): { host: string; page: string; end: URL } | null {
  if (destination.kind !== "web") return null;
  const { hostname, pathname, search } = urlOf(destination);
  if (!/%3a%2f%2f|:\/\//i.test(search)) return null;
  const names = hostname.split(".").slice(0, -1);
  const page = pathname.split("/").filter(Boolean).at(-1) ?? names.find((name) => sendsOn.test(name)) ?? "";
  if (!sendsOn.test(page)) return null;
  const fields = search.slice(1).split("&");
  for (const [i, field] of fields.entries()) {
    const [, name = "", value = ""] = /^([^=]*)=(.*)$/s.exec(field) ?? [];
    if (!whereTo.test(name) || !/^https?(?::|%3a)/i.test(value)) continue;
    // With a query of its own as it stands, nobody can tell whose the fields behind it are.
    if (value.includes("?") && i < fields.length - 1) return null;
    const end = parseUrl(percentDecoded(value));
    if (!end || end.hostname === "" || end.hostname === hostname) continue;
    // Who is sent on takes the fragment along (RFC 9110, 10.2.2).
    if (end.hash === "") end.hash = /#.*$/s.exec(destination.address)?.[0] ?? "";
    return { host: hostname, page, end };
  }
  return null;
}
