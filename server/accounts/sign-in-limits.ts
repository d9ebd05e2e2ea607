import { Injectable, Logger, type OnApplicationShutdown } from "@nestjs/common";
import { Redis } from "ioredis";
import { RateLimiterMemory, RateLimiterRedis, type RateLimiterAbstract } from "rate-limiter-flexible";
import { PassingProblem, Problem } from "../errors/problem.ts";
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
  private readonly logger = new Logger(SignInLimits.name);
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
    this.redis?.on("error", (error) => this.logger.error(`Redis: ${error.message}`));
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

  /**
   * Lets a password be tried. Each try counts before it is judged, so that a thousand at once are no more than a
   * thousand one after the other; the right one makes the earlier ones forgotten.
   * @param judge throws where the password is wrong
   * @throws PassingProblem 429 (RFC 6585, 4) where the next try has to wait: from the fifth wrong one on, each time twice as long
   */
  async tried<T>(email: string, address: string, judge: () => Promise<T>): Promise<T> {
    const key = pairOf(email, address);
    await this.assertNoPause(key);
    const [{ consumedPoints: tries }, { consumedPoints: fromHere, msBeforeNext }] = await Promise.all([
      this.wrong.penalty(key, 1),
      this.fromAddress.penalty(address, 1),
    ]);
    if (fromHere > fromOneAddress) throw tooMany(msBeforeNext);
    // Of those that came at once, the first one past the free ones has set the pause for the others.
    if (tries > free) await this.assertNoPause(key);
    if (tries >= free) {
      const seconds = Math.min(longestPause, firstPause * 2 ** (tries - free));
      await this.pauses.set(key, 1, seconds);
    }
    try {
      const right = await judge();
      await this.forget(key, address);
      return right;
    } catch (error) {
      // What failed for another reason, as a database that is away, says nothing of the password.
      if (!(error instanceof Problem)) await this.forget(key, address);
      throw error;
    }
  }

  private async forget(key: string, address: string): Promise<void> {
    await Promise.all([this.wrong.delete(key), this.pauses.delete(key), this.fromAddress.reward(address, 1)]);
  }

  private async assertNoPause(key: string): Promise<void> {
    const paused = await this.pauses.get(key);
    if (paused) throw tooMany(paused.msBeforeNext);
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
