import { Injectable, type OnApplicationShutdown } from "@nestjs/common";
import { judgeUrl } from "@vennet/core/reach/address-policy";
import { nextStep } from "@vennet/core/reach/follow";
import type { Failure, Hop, Outcome } from "@vennet/core/reach/outcome";
import { Agent, buildConnector, errors, type Dispatcher } from "undici";
import { Settings } from "../settings.ts";
import { ReachFailure, Resolver } from "./resolver.ts";

const bodyLimit = 2 * 1024 * 1024;
/** A page's title stands near its start. */
const titleLimit = 256 * 1024;
const connectionsPerHost = 2;
const askingHeaders = { "user-agent": "Vennet link check", accept: "text/html, */*;q=0.8" };

/** Asks web servers, one question at a time, with the address policy in the way of every connection. */
@Injectable()
export class Asker implements OnApplicationShutdown {
  private readonly agent: Agent;

  constructor(
    private readonly settings: Settings,
    private readonly resolver: Resolver,
  ) {
    const timeout = settings.reachTimeoutMs;
    this.agent = new Agent({
      connect: this.connector(timeout),
      connections: connectionsPerHost,
      pipelining: 1,
      headersTimeout: timeout,
      bodyTimeout: timeout,
      keepAliveTimeout: 2_000,
    });
  }

  async onApplicationShutdown(): Promise<void> {
    await this.agent.destroy();
  }

  /** Asks a web address, follows its redirects, and says in which state it is. */
  async reach(address: string, signal: AbortSignal): Promise<Outcome> {
    const hops: Hop[] = [];
    for (;;) {
      const step = nextStep(address, hops);
      if ("stop" in step) return step.stop;
      hops.push(await this.ask(step.ask.method, step.ask.address, signal));
    }
  }

  /** What a page holds, as far as the limit; null where it does not answer as a page should. */
  async read(address: string, signal: AbortSignal): Promise<{ contentType: string; bytes: Buffer } | null> {
    const url = new URL(address);
    if (judgeUrl(url, this.settings.reachPorts)) return null;
    try {
      const answer = await this.agent.request({
        origin: url.origin,
        path: url.pathname + url.search,
        method: "GET",
        signal,
        headers: askingHeaders,
      });
      const parts: Buffer[] = [];
      let size = 0;
      for await (const part of answer.body as AsyncIterable<Buffer>) {
        parts.push(part);
        size += part.length;
        // Leaving the loop closes the body.
        if (size >= titleLimit) break;
      }
      const contentType = single(answer.headers["content-type"]) ?? "";
      return answer.statusCode === 200 ? { contentType, bytes: Buffer.concat(parts) } : null;
    } catch (error) {
      if (signal.aborted) throw error;
      return null;
    }
  }

  private async ask(method: Hop["method"], address: string, signal: AbortSignal): Promise<Hop> {
    const started = performance.now();
    const hop = (rest: Partial<Hop>): Hop => ({
      method,
      address,
      status: null,
      location: null,
      failure: null,
      ms: Math.round(performance.now() - started),
      ...rest,
    });
    const url = new URL(address);
    const refusal = judgeUrl(url, this.settings.reachPorts);
    if (refusal) return hop({ failure: refusal });
    try {
      const answer = await this.agent.request({
        origin: url.origin,
        path: url.pathname + url.search,
        method,
        signal,
        headers: askingHeaders,
      });
      const done = hop({ status: answer.statusCode, location: single(answer.headers["location"]) });
      // The answer's head is all that is wanted; a body is read up to the limit to free the connection.
      await answer.body.dump({ limit: bodyLimit, signal }).catch(() => answer.body.destroy());
      return done;
    } catch (error) {
      if (signal.aborted) throw error;
      return hop({ failure: failureOf(error) });
    }
  }

  private connector(timeout: number): buildConnector.connector {
    const plain = buildConnector({ timeout, allowH2: false });
    const ca = this.settings.standIns?.authority;
    const standIn = ca ? buildConnector({ timeout, allowH2: false, ca }) : plain;
    return (options, callback) => {
      const secure = options.protocol === "https:";
      const port = Number(options.port || (secure ? 443 : 80));
      this.resolver.endpoint(options.hostname, port, secure).then(
        ({ ip, port: target, isStandIn }) => {
          const connect = isStandIn ? standIn : plain;
          connect(
            {
              ...options,
              hostname: ip,
              port: String(target),
              servername: secure ? options.hostname : undefined,
            } as buildConnector.Options,
            callback,
          );
        },
        (error: Error) => callback(error, null),
      );
    };
  }
}

function single(header: Dispatcher.ResponseData["headers"][string]): string | null {
  return (Array.isArray(header) ? header[0] : header) ?? null;
}

function failureOf(error: unknown): Failure {
  if (error instanceof ReachFailure) return error.failure;
  const code = (error as NodeJS.ErrnoException).code ?? "";
  if (
    error instanceof errors.HeadersTimeoutError ||
    error instanceof errors.ConnectTimeoutError ||
    error instanceof errors.BodyTimeoutError ||
    code === "ETIMEDOUT"
  ) {
    return { code: "timeout" };
  }
  if (code === "ECONNREFUSED") return { code: "refused" };
  if (
    error instanceof errors.SocketError ||
    ["ECONNRESET", "EPIPE", "EHOSTUNREACH", "ENETUNREACH"].includes(code)
  ) {
    return { code: "dropped" };
  }
  if (/CERT|SSL|TLS|UNABLE_TO_VERIFY|SELF_SIGNED/.test(code)) return { code: "tls", detail: code };
  return { code: "protocol", detail: (error as Error).message };
}
