import type { Outcome } from "./outcome.ts";

/** How long a run waits at most when a server asks it to come back later. */
export const longestWaitMs = 60_000;
/** A question that begins so much after its turn, in milliseconds, is on time. */
export const onTimeMs = 5;
/** How often a transient failure is asked again in one run. */
export const mostTries = 3;

/**
 * The pace at which one host is asked: a gap from the start of one question to the start of the next, and
 * pauses that the host asks for. Times are milliseconds of one clock, which the caller reads.
 */
export class HostPace {
  private next = 0;
  private gap: number;

  constructor(gapMs: number) {
    this.gap = gapMs;
  }

  /** From the start of one question to the start of the next, in milliseconds. */
  get gapMs(): number {
    return this.gap;
  }

  /** How long it is until the next question may begin. */
  waitMs(now: number): number {
    return Math.max(0, this.next - now);
  }

  /** A question begins; of one that is hardly late the next keeps its time, so that these moments do not add up. */
  begin(now: number): void {
    this.next = (now - this.next <= onTimeMs ? this.next : now) + this.gap;
  }

  /** The host asked for more time between questions; it never gets less than the usual. */
  widen(gapMs: number): void {
    this.gap = Math.max(this.gap, gapMs);
  }

  /** Nobody asks before this time. */
  pauseUntil(time: number): void {
    this.next = Math.max(this.next, time);
  }

  /** Whether nothing is remembered that matters at this time. */
  isIdle(now: number): boolean {
    return this.next <= now;
  }
}

/**
 * Reads `Retry-After` (RFC 9110, 10.2.3): seconds, or an HTTP date.
 * @returns milliseconds from `now`, 0 for a time that has passed, null for what is neither
 */
export function retryAfterMs(header: string | null, now: Date): number | null {
  if (header === null) return null;
  if (/^\s*\d+\s*$/.test(header)) return Number(header) * 1000;
  // An HTTP date names its day first, which plain numbers do not.
  const at = /[a-z]{3}/i.test(header) ? Date.parse(header) : NaN;
  return Number.isNaN(at) ? null : Math.max(0, at - now.getTime());
}

/** How long to wait before a question is asked again, which grows with each try from 1 on. */
export function retryGapMs(tries: number, baseMs: number): number {
  return baseMs * 4 ** (tries - 1);
}

const transientStatus = new Set([408, 425, 429, 500, 502, 503, 504]);
const transientFailure = new Set<string>(["timeout", "dropped", "refused", "name-server"]);

/** Whether the same question may be answered otherwise a little later. */
export function isTransient({ state, code, hops }: Outcome): boolean {
  if (state !== "unsure") return false;
  if (transientFailure.has(code)) return true;
  return code === "status" && transientStatus.has(hops.at(-1)?.status ?? 0);
}
