import { randomUUID } from "node:crypto";
import type { LoggerService } from "@nestjs/common";
import { pino, type Logger } from "pino";
import { pinoHttp } from "pino-http";
import type { RequestHandler } from "express";

/** The one structured log. Cookies, passwords and session tokens never reach it. */
export function makeLog(level: string): Logger {
  return pino({
    level,
    redact: ["req.headers.cookie", "req.headers.authorization", 'res.headers["set-cookie"]'],
  });
}

/** Gives every request an id, sends it back, and logs one line a request. */
export function logRequests(log: Logger): RequestHandler {
  return pinoHttp({
    logger: log,
    genReqId: (_request, response) => {
      const id = randomUUID();
      response.setHeader("X-Request-Id", id);
      return id;
    },
    serializers: {
      // Addresses and methods are enough; headers and bodies may hold what is private.
      req: (request: { id: string; method: string; url: string }) => ({
        id: request.id,
        method: request.method,
        url: request.url,
      }),
      res: (response: { statusCode: number }) => ({ status: response.statusCode }),
    },
    autoLogging: { ignore: (request) => !request.url?.startsWith("/api/") },
  }) as RequestHandler;
}

/** Nest's own messages, written to the same log. */
export class NestLog implements LoggerService {
  constructor(private readonly logger: Logger) {}
  log(message: unknown, context?: string): void {
    this.logger.debug({ context }, String(message));
  }
  warn(message: unknown, context?: string): void {
    this.logger.warn({ context }, String(message));
  }
  error(message: unknown, ...rest: string[]): void {
    this.logger.error({ context: rest.at(-1) }, String(message));
  }
}
