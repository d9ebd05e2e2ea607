import { nextStep } from "@vennet/core/reach/follow";
import { asksOthers, judgeGuard, refuses, type OthersOfHost } from "@vennet/core/reach/judge-guard";
import { impossibleName, judgePage } from "@vennet/core/reach/judge-page";
import { outcome, type Hop, type Outcome } from "@vennet/core/reach/outcome";
import type { PageFacts, WantedOfPage } from "@vennet/core/reach/page-reader";
import { wantedPart } from "@vennet/core/reach/part";
import { textDirectives } from "@vennet/core/reach/text-fragment";
import { longestWaitMs, retryAfterMs } from "@vennet/core/reach/politeness";
import type { PageFetcher, Reply } from "./page-fetcher.ts";
import { readRobots } from "./read-robots.ts";
import type { HostGates } from "./host-gates.ts";
import { VisitCookies } from "./visit-cookies.ts";

/** No site may hold a run up for longer than this between two questions. */
const widestGapMs = 30_000;

/** Visits pages of one host for one run, and remembers what it learnt of the host on the way. */
export class HostVisits {
  private readonly missing = new Map<string, Promise<Reply>>();
  /** Whether the host was seen to have no https; then its other pages are not tried. */
  private isPlain = false;
  private readonly fronts = new Map<string, Promise<Hop>>();
  /** The hosts that want to be asked by https alone (RFC 6797). */
  private readonly strict = new Set<string>();
  private firstSecure: Promise<Reply> | null = null;
  /** Until when the host wants to be left alone, where that is longer than a run waits. */
  private isShut = false;

  constructor(
    private readonly fetcher: PageFetcher,
    private readonly gates: HostGates,
    private readonly bookId: string,
    /** How many pages are yet to be asked. */
    private readonly left: () => number,
    /** How long one question may take in all, its redirects with it. */
    private readonly totalMs: number,
  ) {}

  /** Obeys the crawl delay that a site asks for. What it forbids to crawlers does not matter for single pages. */
  async readCrawlDelay(address: string, signal: AbortSignal): Promise<void> {
    const { origin, host, protocol } = new URL(address);
    if (protocol !== "http:" && protocol !== "https:") return;
    const leave = await this.gates.enter(host, this.bookId, signal, this.left());
    try {
      const at = `${origin}/robots.txt`;
      const text = await this.fetcher.text(at, signal);
      const seconds = text === null ? undefined : readRobots(at, text).getCrawlDelay("Vennet");
      if (seconds !== undefined && seconds > 0) this.gates.widen(host, Math.min(seconds * 1000, widestGapMs));
    } finally {
      leave();
    }
  }

  /** The outcome of each destination, all of which are this page or parts of it. */
  async visit(
    page: string,
    destinations: readonly string[],
    signal: AbortSignal,
  ): Promise<Map<string, Outcome>> {
    const wanted: WantedOfPage = {
      parts: destinations.flatMap((address) => {
        const part = wantedPart(address);
        return part.kind === "element" ? [part.names] : [];
      }),
      isTextWanted: destinations.some((address) => textDirectives(address).length > 0),
    };
    const hops: Hop[] = [];
    const cookies = new VisitCookies();
    let read: PageFacts | null = null;
    let left = this.totalMs;
    for (;;) {
      const step = nextStep(page, hops);
      if ("stop" in step) break;
      if (this.isShut) return all(destinations, () => outcome("unsure", "asked-to-wait", hops));
      const { method, address } = step.ask;
      const reply = await this.ask(method, address, signal, { wanted, withinMs: left, cookies });
      left -= reply.tookMs;
      hops.push(reply.hop);
      read = reply.page;
      if (this.isShut) return all(destinations, () => outcome("unsure", "asked-to-wait", hops));
    }
    const arrived = (address: string): Outcome => {
      const step = nextStep(address, hops);
      if (!("stop" in step)) throw new Error("An answer that ended a visit does not end it.");
      return step.stop;
    };
    const ended = arrived(page);
    const { state } = ended;
    if (!ended.movedTo && (state === "guarded" || state === "unsure")) {
      const others = asksOthers(ended)
        ? await this.others(new URL(hops.at(-1)!.address).origin, signal)
        : null;
      return all(destinations, (address) => judgeGuard(arrived(address), read, others));
    }
    const isWell = state === "sound" || state === "moved";
    const missing =
      isWell && read ? (await this.missingPage(new URL(hops.at(-1)!.address).origin, signal)).page : null;
    const judged = all(destinations, (address) => judgePage(address, arrived(address), read, missing));
    if (isWell && page.startsWith("http:")) await this.trySecure(page, judged, signal);
    return judged;
  }

  private async ask(
    method: Hop["method"],
    address: string,
    signal: AbortSignal,
    asking?: Parameters<PageFetcher["ask"]>[3],
  ): Promise<Reply> {
    const { host } = new URL(address);
    const leave = await this.gates.enter(host, this.bookId, signal, this.left());
    try {
      const reply = await this.fetcher.ask(method, address, signal, asking);
      if (reply.isStrict && address.startsWith("https:")) this.strict.add(host);
      if (reply.hop.status === 429 || reply.hop.status === 503) this.obeyRest(host, reply.retryAfter);
      return reply;
    } finally {
      leave();
    }
  }

  private obeyRest(host: string, retryAfter: string | null): void {
    const ms = retryAfterMs(retryAfter, new Date());
    if (ms === null) return;
    if (ms > longestWaitMs) this.isShut = true;
    else this.gates.rest(host, ms);
  }

  /** What a server gives for a name that cannot exist. */
  private missingPage(origin: string, signal: AbortSignal): Promise<Reply> {
    const known = this.missing.get(origin);
    if (known) return known;
    const asked = this.ask("GET", `${origin}/${impossibleName}`, signal);
    this.missing.set(origin, asked);
    return asked;
  }

  /** An http page may answer by https too; it is offered only where that was tried. */
  private async trySecure(page: string, judged: Map<string, Outcome>, signal: AbortSignal): Promise<void> {
    const url = new URL(page);
    if (url.port !== "" || this.isPlain) return;
    if (![...judged.values()].some(({ state }) => state === "sound")) return;
    url.protocol = "https:";
    // The first page of a host is tried alone: if it has no https at all, no other page need be.
    if (this.firstSecure) await this.firstSecure.catch(() => undefined);
    if (this.isPlain) return;
    // Who wants to be asked by https alone answers there.
    if (this.strict.has(url.host)) return keepSecure(judged);
    const asked = this.ask("HEAD", url.href, signal);
    this.firstSecure ??= asked;
    const { hop } = await asked;
    this.isPlain = hop.failure !== null;
    if (hop.status === null || hop.status >= 300) return;
    keepSecure(judged);
  }

  private async others(origin: string, signal: AbortSignal): Promise<OthersOfHost> {
    const front = await this.front(origin, signal);
    const missing = refuses(front) ? null : (await this.missingPage(origin, signal)).hop;
    return { front, missing };
  }

  /** What the front page of a host answers, asked once. */
  private front(origin: string, signal: AbortSignal): Promise<Hop> {
    const known = this.fronts.get(origin);
    if (known) return known;
    const asked = this.ask("GET", `${origin}/`, signal).then(({ hop }) => hop);
    this.fronts.set(origin, asked);
    return asked;
  }
}

function keepSecure(judged: Map<string, Outcome>): void {
  for (const [address, one] of judged) {
    const secure = new URL(address);
    secure.protocol = "https:";
    if (one.state === "sound") one.secure = secure.href;
  }
}

function all(destinations: readonly string[], judge: (address: string) => Outcome): Map<string, Outcome> {
  return new Map(destinations.map((address) => [address, judge(address)]));
}
