import { Injectable, type OnApplicationShutdown } from "@nestjs/common";
import { Redis } from "ioredis";
import { RateLimiterMemory, RateLimiterRedis, type RateLimiterAbstract } from "rate-limiter-flexible";
import { PassingProblem } from "../errors/problem.ts";
import { Settings } from "../settings.ts";
import { hashToken } from "./tokens.ts";

const hour = 3_600;
const day = 24 * hour;
/** So many wrong passwords are free; then each pause is twice the one before. */
const free = 5;
const firstPause = 30;
const longestPause = hour;
const fromOneAddress = 60;
const mailsPerHour = 5;

/**
 * Limits on what can be tried without being signed in, by the account and by the address from which it comes (OWASP
 * ASVS 4.0.3, 2.2.1, from memory). With Redis all servers count together.
 */
@Injectable()
export class SignInLimits implements OnApplicationShutdown {
  private readonly redis: Redis | null;
  /** Wrong passwords of an account from an address, one after the other. */
  private readonly wrong: RateLimiterAbstract;
  /** The pause that they brought. */
  private readonly pauses: RateLimiterAbstract;
  /** Wrong passwords from an address, whatever the account. */
  private readonly fromAddress: RateLimiterAbstract;
  private readonly signUps: RateLimiterAbstract;
  private readonly mails: RateLimiterAbstract;
  private readonly mailsAsked: RateLimiterAbstract;

  constructor({ redisUrl, signUpsPerHour }: Settings) {
    this.redis = redisUrl ? new Redis(redisUrl, { enableOfflineQueue: false, lazyConnect: false }) : null;
    this.redis?.on("error", () => undefined);
    this.wrong = this.limiter("wrong", 1_000_000, day);
    this.pauses = this.limiter("pause", 1, longestPause);
    this.fromAddress = this.limiter("address", fromOneAddress, hour);
    this.signUps = this.limiter("sign-ups", signUpsPerHour, hour);
    this.mails = this.limiter("mails", mailsPerHour, hour);
    this.mailsAsked = this.limiter("mails-asked", fromOneAddress, hour);
  }

  async onApplicationShutdown(): Promise<void> {
    this.redis?.disconnect();
  }

  /** @throws PassingProblem 429 (RFC 6585, 4) where another try has to wait */
  async assertMayTry(email: string, address: string): Promise<void> {
    const [paused, seen] = await Promise.all([
      this.pauses.get(pairOf(email, address)),
      this.fromAddress.get(address),
    ]);
    if (paused && paused.consumedPoints > 0) throw tooMany(paused.msBeforeNext);
    if (seen && seen.remainingPoints <= 0) throw tooMany(seen.msBeforeNext);
  }

  /** Notes a wrong password. From the fifth on a pause follows, each twice as long. */
  async noteWrong(email: string, address: string): Promise<void> {
    const key = pairOf(email, address);
    const [{ consumedPoints }] = await Promise.all([
      this.wrong.penalty(key, 1),
      this.fromAddress.penalty(address, 1),
    ]);
    if (consumedPoints < free) return;
    const seconds = Math.min(longestPause, firstPause * 2 ** (consumedPoints - free));
    await this.pauses.set(key, 2, seconds);
  }

  /** Forgets what was wrong before the right password came. */
  async noteRight(email: string, address: string): Promise<void> {
    const key = pairOf(email, address);
    await Promise.all([this.wrong.delete(key), this.pauses.delete(key)]);
  }

  /** @throws PassingProblem 429 where too many accounts were made from an address */
  async countSignUp(address: string): Promise<void> {
    await take(this.signUps, address);
  }

  /** @throws PassingProblem 429 where links were asked for too often from an address */
  async countMailAsked(address: string): Promise<void> {
    await take(this.mailsAsked, address);
  }

  /** Whether another mail may go to an email address now; who asks is not told. */
  async mayMail(email: string): Promise<boolean> {
    return take(this.mails, hashToken(email)).then(
      () => true,
      () => false,
    );
  }

  private limiter(name: string, points: number, duration: number): RateLimiterAbstract {
    const options = { keyPrefix: `vennet-${name}`, points, duration };
    if (!this.redis) return new RateLimiterMemory(options);
    // While Redis is away each server counts for itself.
    return new RateLimiterRedis({
      ...options,
      storeClient: this.redis,
      insuranceLimiter: new RateLimiterMemory(options),
    });
  }
}

/** An attacker elsewhere cannot shut an author out: what is wrong is counted by both. */
function pairOf(email: string, address: string): string {
  return hashToken(`${email.toLowerCase()} ${address}`);
}

async function take(limiter: RateLimiterAbstract, key: string): Promise<void> {
  try {
    await limiter.consume(key);
  } catch (refused) {
    if (refused instanceof Error) throw refused;
    throw tooMany((refused as { msBeforeNext: number }).msBeforeNext);
  }
}

function tooMany(ms: number): PassingProblem {
  const seconds = Math.max(1, Math.ceil(ms / 1000));
  const told = seconds < 120 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`;
  return new PassingProblem(
    429,
    "too-many-tries",
    `That was tried too often. Wait ${told}, then try again.`,
    seconds,
  );
}
