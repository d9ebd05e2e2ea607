import { Injectable, Logger } from "@nestjs/common";
import { isPage } from "@vennet/core/reach/follow";
import type { Resource } from "@vennet/core/reach/kept-page";
import { behindRedirects, type Fetched } from "../reach/behind-redirects.ts";
import { HostGates } from "../reach/host-gates.ts";
import { PageFetcher } from "../reach/page-fetcher.ts";
import { readRobots } from "../reach/read-robots.ts";
import type { VisitCookies } from "../reach/visit-cookies.ts";
import { WorkerPools } from "../workers/worker-pools.ts";

/** A page is no larger, and neither is all that it shows; and it shows no more than so much. */
const largestPage = 2 * 1024 * 1024;
const largestTogether = 5 * 1024 * 1024;
const mostResources = 40;

/** What came of a copy: a file, or why there is none. */
export type CopiedPage = { bytes: Uint8Array; mediaType: string; address: string } | { problem: string };

/** Takes copies of pages, each as one file, at the pace of their hosts and only where these let programs do so. */
@Injectable()
export class CopiedPages {
  private readonly log = new Logger(CopiedPages.name);

  constructor(
    private readonly fetcher: PageFetcher,
    private readonly gates: HostGates,
    private readonly workers: WorkerPools,
  ) {}

  /** @param allowed what is known of hosts' rules for programs, for one job */
  async take(
    address: string,
    bookId: string,
    keptAt: Date,
    allowed: Map<string, Promise<(address: string) => boolean>>,
    signal: AbortSignal,
  ): Promise<CopiedPage> {
    const rules = (at: string): Promise<(address: string) => boolean> => {
      const { origin } = new URL(at);
      const known = allowed.get(origin);
      if (known) return known;
      const asked = this.rulesOf(origin, bookId, signal);
      allowed.set(origin, asked);
      return asked;
    };
    let isShut = false;
    const fetched = await behindRedirects(address, async (at, cookies) => {
      isShut = !(await rules(at))(at);
      return isShut ? nothing(at) : this.ask(at, bookId, largestPage, signal, cookies);
    });
    if (isShut) return { problem: "its host asks programs to leave it alone" };
    if ("problem" in fetched)
      return {
        problem: fetched.problem === "no-address" ? "it leads on to no address" : "it leads on and on",
      };
    const { hop, bytes, at } = fetched;
    if (hop.status !== 200 || hop.failure)
      return { problem: hop.status === null ? "it does not answer" : `it answers ${hop.status}` };
    if (bytes === null) return { problem: "it is too large" };
    if (!isPage(hop.type)) return { bytes, mediaType: hop.type ?? "application/octet-stream", address: at };
    try {
      return await this.whole(bytes, at, bookId, keptAt, rules, signal);
    } catch (error) {
      // A page that brings its process down, or lies too deep in itself, is no reason to keep no other.
      signal.throwIfAborted();
      this.log.warn(`The page ${at} cannot be copied: ${(error as Error).message}`);
      return { problem: "it cannot be read" };
    }
  }

  /** A page with all that it shows inside, as far as that may be had. */
  private async whole(
    bytes: Uint8Array,
    address: string,
    bookId: string,
    keptAt: Date,
    rules: (at: string) => Promise<(address: string) => boolean>,
    signal: AbortSignal,
  ): Promise<CopiedPage> {
    const { resources: wanted } = await this.workers.run("keptPage", { bytes, address }, signal);
    const resources = new Map<string, Resource>();
    let room = largestTogether;
    for (const at of wanted.slice(0, mostResources)) {
      if (room <= 0) break;
      if (!(await rules(at))(at)) continue;
      const { hop, bytes: content } = await this.ask(at, bookId, room, signal);
      if (hop.status !== 200 || content === null) continue;
      room -= content.length;
      resources.set(at, { type: hop.type ?? "", bytes: content });
    }
    const { html } = await this.workers.run(
      "keptPage",
      { bytes, address, keep: { keptAt, resources } },
      signal,
    );
    return { bytes: Buffer.from(html!), mediaType: "text/html", address };
  }

  private async ask(at: string, bookId: string, limit: number, signal: AbortSignal, cookies?: VisitCookies) {
    const leave = await this.gates.enter(new URL(at).host, bookId, signal);
    try {
      return await this.fetcher.bytes(at, signal, limit, cookies);
    } finally {
      leave();
    }
  }

  private async rulesOf(
    origin: string,
    bookId: string,
    signal: AbortSignal,
  ): Promise<(address: string) => boolean> {
    const leave = await this.gates.enter(new URL(origin).host, bookId, signal);
    try {
      const at = `${origin}/robots.txt`;
      const text = await this.fetcher.text(at, signal);
      if (text === null) return () => true;
      const rules = readRobots(at, text);
      return (address) => rules.isAllowed(address, "Vennet") ?? true;
    } finally {
      leave();
    }
  }
}

/** In the place of what was not asked. */
function nothing(address: string): Fetched {
  const hop = {
    method: "GET" as const,
    address,
    status: null,
    location: null,
    type: null,
    failure: null,
    ms: 0,
  };
  return { hop, bytes: null };
}
