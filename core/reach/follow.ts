import { parseUrl } from "../destination/parse-url.ts";
import { session, sessionHandle, tracking, withoutParts } from "../destination/address-parts.ts";
import { askedAddress } from "../destination/kinds/web.ts";
import {
  outcome,
  type Failure,
  type Hop,
  type Outcome,
  type OutcomeCode,
  type ReachState,
} from "./outcome.ts";

/** How many redirects are followed before a destination counts as broken. */
export const maxRedirects = 10;

/** What to do next with a page: ask once more, or stop with an outcome. */
export type NextStep = { ask: { method: "HEAD" | "GET"; address: string } } | { stop: Outcome };

const redirects = new Set([301, 302, 303, 307, 308]);
// RFC 9110, 15.4: only these two say that the new address should be used from now on.
const permanent = new Set([301, 308]);

/** Whether a media type is that of a page that can be read for its title and its parts. */
export function isPage(type: string | null): boolean {
  return type === "text/html" || type === "application/xhtml+xml";
}

/**
 * The next step for a page, from all questions and answers so far. Pure: whoever calls it does the
 * asking. A HEAD that was refused or dropped proves nothing about GET, so GET is asked then; nor does
 * one that is answered with a page, which may say of itself that it was not found.
 */
export function nextStep(address: string, hops: Hop[]): NextStep {
  const last = hops.at(-1);
  if (!last) return { ask: { method: "HEAD", address: askedAddress(address) } };
  const again: NextStep = { ask: { method: "GET", address: last.address } };
  if (last.failure) {
    const { code } = last.failure;
    const asked = hops.filter(({ address, method }) => address === last.address && method === "GET").length;
    // What cannot be understood may be the end of an answer to somebody before; a new connection tells.
    const isSilent =
      code === "dropped" || (last.failure.code === "timeout" && last.failure.connected === true);
    if ((last.method === "HEAD" && isSilent) || (code === "protocol" && asked < 2)) return again;
    return stop(stateOfFailure(last.failure), last.failure.code, hops);
  }
  const status = last.status!;
  if (redirects.has(status) && last.location !== null) return followRedirect(last, hops);
  if (status >= 200 && status < 300) {
    if (last.method === "HEAD" && (isPage(last.type) || last.type === null)) return again;
    return isLedOn(hops) ? { ask: { method: "HEAD", address: last.leadsOn! } } : arrived(address, hops);
  }
  if (last.method === "HEAD") return again;
  if (status === 404) return stop("broken", "not-found", hops);
  if (status === 410) return stop("broken", "gone", hops);
  if (status === 401 || status === 403 || status === 407) return stop("guarded", "guarded", hops);
  return stop("unsure", "status", hops);
}

function followRedirect(last: Hop, hops: Hop[]): NextStep {
  const target = parseUrl(last.location!, last.address);
  if (!target || (target.protocol !== "http:" && target.protocol !== "https:")) {
    return stop("broken", "bad-redirect", hops);
  }
  target.hash = "";
  const before = hops.findLastIndex((hop) => hop.address === target.href);
  // Who brings a cookie that was set meanwhile may see what led away before.
  if (before !== -1 && !hops.slice(before).some(({ setsCookies }) => setsCookies)) {
    const wasRead = hops.some(({ address, method }) => address === target.href && method === "GET");
    // Some set theirs where the page itself is asked for.
    return wasRead ? stop("broken", "loop", hops) : { ask: { method: "GET", address: target.href } };
  }
  const followed = hops.filter(leadsAway).length;
  if (followed > maxRedirects) return stop("broken", "too-many-redirects", hops);
  return { ask: { method: "HEAD", address: target.href } };
}

function arrived(address: string, hops: Hop[]): NextStep {
  const followed = hops.slice(0, -1).filter(leadsAway);
  if (followed.length === 0) return stop("sound", "ok", hops);
  const permanentFirst = followed.findIndex((hop) => !permanent.has(hop.status!));
  const count = permanentFirst === -1 ? followed.length : permanentFirst;
  if (count === 0) return stop("sound", "redirected", hops);
  const lastPermanent = followed[count - 1]!;
  const movedTo = new URL(lastPermanent.location!, lastPermanent.address);
  // RFC 9110, 10.2.2: a fragment stays unless the redirect gives its own.
  if (movedTo.hash === "") movedTo.hash = new URL(address).hash;
  const to = withoutNewTracking(movedTo.href, address);
  // What only counts its readers has not moved.
  return to === new URL(address).href ? stop("sound", "redirected", hops) : stop("moved", "moved", hops, to);
}

/** An address without the parts that follow readers or carry a visit, as far as the one that led there has none of that name. */
function withoutNewTracking(to: string, from: string): string {
  const had = new Set([...new URL(from).searchParams.keys()]);
  const isNew = (name: RegExp) => ({ test: (part: string) => name.test(part) && !had.has(part) });
  const bare = withoutParts({ kind: "web", address: to }, isNew(tracking)).address;
  return withoutParts({ kind: "web", address: bare }, isNew(session), sessionHandle).address;
}

function leadsAway(hop: Hop): boolean {
  const isRedirect = hop.status !== null && redirects.has(hop.status) && hop.location !== null;
  return isRedirect || hop.leadsOn !== undefined;
}

/** Whether the page that came leads on to one that was not asked yet: pages that lead to each other show both, again and again. */
function isLedOn(hops: Hop[]): boolean {
  const { leadsOn } = hops.at(-1)!;
  const isNew = leadsOn !== undefined && !hops.some(({ address }) => address === leadsOn);
  return isNew && hops.filter(leadsAway).length <= maxRedirects;
}

function stateOfFailure(failure: Failure): ReachState {
  switch (failure.code) {
    case "name-server":
    case "timeout":
    case "dropped":
    case "protocol":
    case "undecodable":
    case "refused":
    case "port":
    // Browsers know more of those who sign, and more ways of encrypting.
    case "tls-chain":
    case "tls-handshake":
      return "unsure";
    default:
      return "broken";
  }
}

function stop(state: ReachState, code: OutcomeCode, hops: Hop[], movedTo: string | null = null): NextStep {
  return { stop: { ...outcome(state, code, hops), movedTo } };
}
