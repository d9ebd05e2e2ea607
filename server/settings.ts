import { readFileSync } from "node:fs";
import { defaultPorts } from "@vennet/core/reach/address-policy";

/** Where the stand-in web listens; it answers for the reserved names alone. */
export interface StandInSettings {
  httpPort: number;
  tlsPort: number;
  /** The certificate authority of the stand-in web, as PEM. */
  authority: string;
}

/** Everything that can be set from outside, read from the environment once at start. */
export class Settings {
  readonly port: number;
  readonly databaseUrl: string;
  readonly demo: boolean;
  readonly secureCookies: boolean;
  readonly logLevel: string;
  readonly standIns: StandInSettings | null;
  readonly reachPorts: readonly number[];
  readonly reachTimeoutMs: number;
  /** How many questions are under way at once, over all books. */
  readonly reachConcurrency: number;
  /** How many questions to one host are under way at once. */
  readonly reachLanes: number;
  /** The least time between two questions to one host. */
  readonly reachGapMs: number;
  /** The time before the first of the growing pauses after which a transient failure is asked again. */
  readonly reachRetryMs: number;
  /** Where jobs are shared between servers; null where this server runs its own. */
  readonly redisUrl: string | null;
  /** After how long without a sign of life another server takes over what a server was at. */
  readonly takeOverMs: number;

  constructor(env: NodeJS.ProcessEnv = process.env) {
    this.port = Number(env["PORT"] ?? 4600);
    this.databaseUrl = env["DATABASE_URL"] ?? "";
    this.demo = env["VENNET_DEMO"] === "1";
    this.secureCookies = env["VENNET_SECURE_COOKIES"] === "1";
    this.logLevel = env["LOG_LEVEL"] ?? "info";
    this.standIns = env["STANDIN_WEB_PORT"]
      ? {
          httpPort: Number(env["STANDIN_WEB_PORT"]),
          tlsPort: Number(env["STANDIN_WEB_TLS_PORT"]),
          authority: readFileSync(env["STANDIN_WEB_CA"]!, "utf8"),
        }
      : null;
    this.reachPorts = env["REACH_PORTS"] ? env["REACH_PORTS"].split(",").map(Number) : defaultPorts;
    this.reachTimeoutMs = Number(env["REACH_TIMEOUT_MS"] ?? 15_000);
    this.reachConcurrency = Number(env["REACH_CONCURRENCY"] ?? 64);
    this.reachLanes = Number(env["REACH_LANES"] ?? 2);
    this.reachGapMs = Number(env["REACH_GAP_MS"] ?? 100);
    this.reachRetryMs = Number(env["REACH_RETRY_MS"] ?? 2_000);
    this.redisUrl = env["REDIS_URL"] || null;
    this.takeOverMs = Number(env["TAKE_OVER_MS"] ?? 30_000);
  }
}
