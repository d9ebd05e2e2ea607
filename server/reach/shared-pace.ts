import { Injectable, Logger, type OnApplicationShutdown } from "@nestjs/common";
import { onTimeMs } from "@vennet/core/reach/politeness";
import { Redis } from "ioredis";
import { Settings } from "../settings.ts";

/** A host's turn is forgotten so long after it. */
const keptMs = 60_000;

/**
 * Begins a question to a host by the clock of Redis if it is time, and gives 0, else how long it is until then, in
 * milliseconds. What is late, and by how much one is still on time, is as in one server alone.
 */
const begin = `
local time = redis.call("TIME")
local now = time[1] * 1000 + math.floor(time[2] / 1000)
local turn = tonumber(redis.call("GET", KEYS[1]) or "0")
if turn > now then return turn - now end
if now - turn > tonumber(ARGV[2]) then turn = now end
redis.call("SET", KEYS[1], turn + ARGV[1], "PX", ARGV[1] + ARGV[3])
return 0`;

/** The pace of hosts, kept together by all servers that share one Redis. */
@Injectable()
export class SharedPace implements OnApplicationShutdown {
  private readonly logger = new Logger(SharedPace.name);
  private readonly redis: Redis | null;

  constructor({ redisUrl }: Settings) {
    this.redis = redisUrl ? new Redis(redisUrl, { enableOfflineQueue: false }) : null;
    this.redis?.on("error", (error) => this.logger.error(`Redis: ${error.message}`));
  }

  onApplicationShutdown(): void {
    this.redis?.disconnect();
  }

  /**
   * Begins a question, after which others wait for the gap.
   * @returns 0, or how long it is until one may begin, in milliseconds; also 0 where no other shares the pace, or Redis is away
   */
  async begin(host: string, gapMs: number): Promise<number> {
    return this.asked(0, (redis) =>
      redis.eval(begin, 1, `vennet-turn:${host}`, Math.ceil(gapMs), onTimeMs, keptMs).then(Number),
    );
  }

  /** How long a host still wants to be left alone. */
  async restOf(host: string): Promise<number> {
    return this.asked(0, async (redis) => Math.max(0, await redis.pttl(`vennet-rest:${host}`)));
  }

  /** A host asks for a rest of so many milliseconds. */
  async rest(host: string, ms: number): Promise<void> {
    if (ms < 1) return;
    await this.asked(null, async (redis) => {
      await redis.set(`vennet-rest:${host}`, "1", "PX", Math.ceil(ms));
      return null;
    });
  }

  /** While Redis is away each server keeps its own pace, as it would alone. */
  private async asked<T>(otherwise: T, ask: (redis: Redis) => Promise<T>): Promise<T> {
    if (!this.redis) return otherwise;
    try {
      return await ask(this.redis);
    } catch (error) {
      this.logger.warn(`The pace is not shared just now: ${(error as Error).message}`);
      return otherwise;
    }
  }
}
