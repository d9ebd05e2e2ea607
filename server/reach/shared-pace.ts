import { Injectable, Logger, type OnApplicationShutdown } from "@nestjs/common";
import { Redis } from "ioredis";
import { Settings } from "../settings.ts";

/** A host's turn is forgotten so long after it. */
const keptMs = 60_000;

/** Takes the next turn of a host by the clock of Redis, and gives how long it is away, in milliseconds. */
const takeTurn = `
local time = redis.call("TIME")
local now = time[1] * 1000 + math.floor(time[2] / 1000)
local turn = math.max(now, tonumber(redis.call("GET", KEYS[1]) or "0"))
redis.call("SET", KEYS[1], turn + ARGV[1], "PX", turn - now + ARGV[1] + ARGV[2])
return turn - now`;

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

  /** How long until this server's turn, in milliseconds; 0 where no other shares the pace, or Redis is away. */
  async takeTurn(host: string, gapMs: number): Promise<number> {
    return this.asked(0, (redis) =>
      redis.eval(takeTurn, 1, `vennet-turn:${host}`, Math.ceil(gapMs), keptMs).then(Number),
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
