import type { TLSSocket } from "node:tls";
import { Injectable, type OnApplicationShutdown } from "@nestjs/common";
import { parseUrl } from "@vennet/core/destination/parse-url";
import { judgeUrl } from "@vennet/core/reach/address-policy";
import { isPage } from "@vennet/core/reach/follow";
import type { Hop } from "@vennet/core/reach/outcome";
import { nothingWanted, type PageFacts, type WantedOfPage } from "@vennet/core/reach/page-reader";
import { refreshTarget } from "@vennet/core/reach/refresh";
import { Agent, type Dispatcher } from "undici";
import { Settings } from "../settings.ts";
import { WorkerPools } from "../workers/worker-pools.ts";
import { failureOf } from "./failure-of.ts";
import { judgedConnector } from "./judged-connector.ts";
import { decoderOf } from "./page-decoder.ts";
import { PageGatherer } from "./page-gatherer.ts";
import { ReachFailure, Resolver } from "./resolver.ts";
import { unpackedBody } from "./unpacked-body.ts";
import type { VisitCookies } from "./visit-cookies.ts";

/** No page is read further; what is packed counts as it is unpacked. */
const bodyLimit = 2 * 1024 * 1024;
/** A body that is shorter is read to its end, so that its connection can be used again. */
const worthReading = 64 * 1024;
/** Browsers read heads of this length; the runtime by itself no more than 16 kB. */
const longestHead = 256 * 1024;
/** The statuses with which a page comes that tells something: itself, or why it refuses. */
const statusesRead = new Set([200, 403, 429, 503]);
/** A certificate that ends sooner is told of. */
const endsSoonMs = 14 * 24 * 60 * 60 * 1000;
const certificatesKept = 10_000;
/** And no longer than this: a connection is not worth more. */
const worthWaitingMs = 1_000;
const askingHeaders = {
  "user-agent": "Vennet link check",
  accept: "text/html, */*;q=0.8",
  "accept-encoding": "gzip, deflate, br",
};

/** One answer: the evidence, and what only the asking needs. */
export interface Reply {
  hop: Hop;
  retryAfter: string | null;
  /** Whether the host wants to be asked by https alone (RFC 6797). */
  isStrict: boolean;
  /** What was read of it, where it was a page and was to be read. */
  page: PageFacts | null;
  /** How long it took with its body. */
  tookMs: number;
}

/** What else there is to a question. */
interface Asking {
  wanted?: WantedOfPage;
  /** How long it may take in all, however the host answers. */
  withinMs?: number;
  /** The cookies of the visit that it is part of. */
  cookies?: VisitCookies;
}

/** Asks web servers, one question at a time, with the address policy in the way of every connection. */
@Injectable()
export class PageFetcher implements OnApplicationShutdown {
  private readonly agent: Agent;
  /** When the certificates end that hosts showed, by host and port. */
  private readonly certificates = new Map<string, number>();

  constructor(
    private readonly settings: Settings,
    resolver: Resolver,
    private readonly workers: WorkerPools,
  ) {
    const timeout = settings.reachTimeoutMs;
    this.agent = new Agent({
      connect: judgedConnector(
        (host, port, secure) => resolver.endpoint(host, port, secure),
        timeout,
        settings.standIns?.authority,
        (host, port, socket) => this.keepCertificate(host, port, socket as TLSSocket),
      ),
      pipelining: 1,
      headersTimeout: timeout,
      bodyTimeout: timeout,
      maxHeaderSize: longestHead,
      keepAliveTimeout: 2_000,
    });
  }

  async onApplicationShutdown(): Promise<void> {
    await this.agent.destroy();
  }

  /** Asks once. With GET a page is read for its title and the wanted parts, as far as they need it. */
  async ask(
    method: Hop["method"],
    address: string,
    signal: AbortSignal,
    asking: Asking = {},
  ): Promise<Reply> {
    return this.answerTo(method, address, signal, asking, async (answer, type, within) =>
      method === "GET" && isPage(type) && statusesRead.has(answer.statusCode)
        ? this.readPage(answer, asking.wanted ?? nothingWanted, within)
        : null,
    );
  }

  /** The text at an address, as far as the limit; null where there is none. */
  async text(address: string, signal: AbortSignal): Promise<string | null> {
    let text: string | null = null;
    await this.answerTo("GET", address, signal, {}, async (answer) => {
      if (answer.statusCode !== 200) return null;
      const decoder = decoderOf(answer.headers["content-type"]);
      text = "";
      await this.readBody(answer, (bytes) => {
        text += decoder.decode(bytes);
        return false;
      });
      text += decoder.end();
      return null;
    });
    return text;
  }

  /** What is at an address, whole; null where it is longer than the limit, or nothing came. */
  async bytes(
    address: string,
    signal: AbortSignal,
    limit: number,
    cookies?: VisitCookies,
  ): Promise<{ hop: Hop; bytes: Uint8Array | null }> {
    let bytes: Uint8Array | null = null;
    const asking = cookies ? { cookies } : {};
    const { hop } = await this.answerTo("GET", address, signal, asking, async (answer) => {
      if (answer.statusCode !== 200) return null;
      const pieces: Buffer[] = [];
      const take = (piece: Buffer): boolean => pieces.push(piece) === 0;
      const isWhole = await this.readBody(answer, take, limit);
      bytes = isWhole ? Buffer.concat(pieces) : null;
      return null;
    });
    return { hop, bytes };
  }

  private async answerTo(
    method: Hop["method"],
    address: string,
    signal: AbortSignal,
    { withinMs = this.settings.reachTotalMs, cookies }: Asking,
    read: (
      answer: Dispatcher.ResponseData,
      type: string | null,
      within: AbortSignal,
    ) => Promise<PageFacts | null>,
  ): Promise<Reply> {
    const started = performance.now();
    const reply = (rest: Partial<Hop>, more: Partial<Reply> = {}): Reply => ({
      hop: {
        method,
        address,
        status: null,
        location: null,
        type: null,
        failure: null,
        ms: Math.round(performance.now() - started),
        ...rest,
      },
      retryAfter: null,
      isStrict: false,
      page: null,
      tookMs: performance.now() - started,
      ...more,
    });
    const url = new URL(address);
    const refusal = judgeUrl(url, this.settings.reachPorts);
    if (refusal) return reply({ failure: refusal });
    if (withinMs <= 0) return reply({ failure: { code: "timeout" } });
    const { within, endWait } = limited(signal, withinMs);
    try {
      const answer = await this.agent.request({
        origin: url.origin,
        path: url.pathname + url.search,
        method,
        signal: within,
        headers: { ...askingHeaders, cookie: cookies?.for(address) },
        // One that keeps silent to HEAD may answer GET, which there has to be time for.
        ...(method === "HEAD" ? { headersTimeout: Math.ceil(this.settings.reachTimeoutMs / 2) } : {}),
        // A connection is used again after HEAD too. A server that sends a body all the same spoils the next
        // question on it, which is asked once more then.
        reset: false,
      });
      const type = single(answer.headers["content-type"])?.split(";")[0]!.trim().toLowerCase() || null;
      const location = inAsciiBytes(single(answer.headers["location"]));
      const ends = url.protocol === "https:" ? this.certificates.get(url.host) : undefined;
      const done = reply(
        {
          status: answer.statusCode,
          location,
          type,
          ...(answer.headers["www-authenticate"] === undefined ? {} : { asksWho: true }),
          ...(cookies?.keep(address, every(answer.headers["set-cookie"])) ? { setsCookies: true } : {}),
          ...(ends !== undefined && ends - Date.now() < endsSoonMs
            ? { certificateEnds: new Date(ends).toISOString() }
            : {}),
        },
        {
          retryAfter: single(answer.headers["retry-after"]),
          isStrict: /max-age=["']?[1-9]/i.test(single(answer.headers["strict-transport-security"]) ?? ""),
        },
      );
      try {
        done.page = await read(answer, type, within);
        const to = leadsOn(answer, done.page, address);
        if (to !== null) done.hop.leadsOn = to;
      } catch (error) {
        if (!(error instanceof ReachFailure)) throw error;
        done.hop.failure = error.failure;
      }
      if (!answer.body.destroyed) await this.release(answer, within);
      return { ...done, tookMs: performance.now() - started };
    } catch (error) {
      signal.throwIfAborted();
      return reply({ failure: within.aborted ? { code: "timeout" } : failureOf(error) });
    } finally {
      endWait();
    }
  }

  /** What is left of a body is read where it is short; else its connection is given up. */
  private async release(answer: Dispatcher.ResponseData, signal: AbortSignal): Promise<void> {
    const length = Number(single(answer.headers["content-length"]) ?? 0);
    if (length > worthReading) return void answer.body.on("error", () => undefined).destroy();
    const { within, endWait } = limited(signal, worthWaitingMs);
    await answer.body.dump({ limit: worthReading, signal: within }).catch(() => answer.body.destroy());
    endWait();
  }

  private async readPage(
    answer: Dispatcher.ResponseData,
    wanted: WantedOfPage,
    signal: AbortSignal,
  ): Promise<PageFacts> {
    const gatherer = new PageGatherer(this.workers, wanted, signal);
    const decoder = decoderOf(answer.headers["content-type"]);
    const isWhole = await this.readBody(answer, (bytes) => gatherer.push(decoder.decode(bytes)));
    await gatherer.push(decoder.end());
    return gatherer.facts(isWhole);
  }

  /** Gives a body out piece by piece until it ends, is long enough, takes too long, or cannot be unpacked. */
  private async readBody(
    answer: Dispatcher.ResponseData,
    take: (bytes: Buffer) => boolean | Promise<boolean>,
    limit = bodyLimit,
  ): Promise<boolean> {
    const until = performance.now() + this.settings.reachTimeoutMs;
    let size = 0;
    let enoughAt = Infinity;
    try {
      const codings = every(answer.headers["content-encoding"]).join();
      for await (const bytes of unpackedBody(answer.body, codings) as AsyncIterable<Buffer>) {
        size += bytes.length;
        if (enoughAt === Infinity && (await take(bytes))) enoughAt = size;
        // Leaving the loop closes the body and its connection, which a short rest is not worth.
        if (size > enoughAt + worthReading || size >= limit || performance.now() > until) return false;
      }
      return enoughAt === Infinity;
    } catch (error) {
      if (error instanceof ReachFailure) throw error;
      // Browsers show what could be unpacked before.
      if (size === 0 && isUndecodable(error)) throw new ReachFailure({ code: "undecodable" });
      // The head has come; a body that breaks off, or takes too long, tells no more than what was read of it.
      return false;
    }
  }

  private keepCertificate(host: string, port: number, socket: TLSSocket): void {
    const ends = Date.parse(socket.getPeerCertificate().valid_to);
    if (this.certificates.size >= certificatesKept) this.certificates.clear();
    if (!Number.isNaN(ends)) this.certificates.set(port === 443 ? host : `${host}:${port}`, ends);
  }
}

/** A signal that aborts with another, or when a time is over. */
function limited(signal: AbortSignal, ms: number): { within: AbortSignal; endWait: () => void } {
  const controller = new AbortController();
  const abort = (): void => controller.abort(signal.reason);
  if (signal.aborted) abort();
  signal.addEventListener("abort", abort, { once: true });
  const timer = setTimeout(() => controller.abort(new Error("It took too long.")), ms);
  const endWait = (): void => {
    clearTimeout(timer);
    signal.removeEventListener("abort", abort);
  };
  return { within: controller.signal, endWait };
}

/** Whether bytes are not what their coding says; one that only ends too soon is shown as far as it goes. */
function isUndecodable(error: unknown): boolean {
  const { code = "" } = error as NodeJS.ErrnoException;
  return code !== "Z_BUF_ERROR" && /^(?:Z_|ERR__ERROR_)/.test(code);
}

/** Where an answer leads its readers by itself, whole, if it is to another page. */
function leadsOn(answer: Dispatcher.ResponseData, page: PageFacts | null, address: string): string | null {
  const { to, base } = page?.leadsOn ?? {
    to: refreshTarget(single(answer.headers["refresh"]) ?? ""),
    base: null,
  };
  const target = to === null ? null : parseUrl(to, (base && parseUrl(base, address)?.href) ?? address);
  if (!target || (target.protocol !== "http:" && target.protocol !== "https:")) return null;
  target.hash = "";
  return target.href === new URL(address).href ? null : target.href;
}

/** A header's value with the bytes beyond ASCII, each of which is one letter here, percent-encoded, as browsers do for `Location`. */
function inAsciiBytes(value: string | null): string | null {
  return (
    value?.replace(/[\x80-\xff]/g, (byte) => `%${byte.charCodeAt(0).toString(16).toUpperCase()}`) ?? null
  );
}

function every(header: Dispatcher.ResponseData["headers"][string]): string[] {
  return header === undefined ? [] : [header].flat();
}

function single(header: Dispatcher.ResponseData["headers"][string]): string | null {
  return (Array.isArray(header) ? header[0] : header) ?? null;
}
