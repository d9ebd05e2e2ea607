import type { Hop, Outcome } from "./outcome.ts";
import { outcome } from "./outcome.ts";
import type { PageFacts } from "./page-reader.ts";
import { tellsGuard } from "./page-phrases.ts";

const refusals = new Set([403, 429, 503]);

/** What other pages of a host answered that refused one. */
export interface OthersOfHost {
  front: Hop;
  /** A page of a name that cannot exist; null where the front page told enough. */
  missing: Hop | null;
}

/**
 * Whether who refuses does so to members only, or to all programs (common practice: neither has a status of its own).
 * A door for members asks who somebody is (RFC 9110, 11.6.1), or stands before some pages only: the host's front page
 * opens, and what is not there is told as missing. Who refuses even that refuses everybody, or tells nobody what is there.
 * @param refusal what the refusal itself says; null where it is no page
 * @param others what other pages of the host answered; null where they were not asked
 */
export function judgeGuard(
  arrived: Outcome,
  refusal: PageFacts | null,
  others: OthersOfHost | null,
): Outcome {
  const last = arrived.hops.at(-1);
  if (!last || !refuses(last)) return arrived;
  const shut = (): Outcome => outcome("unsure", "shut-to-programs", arrived.hops);
  if (refusal !== null && tellsGuard(refusal.title ?? refusal.heading, refusal.words)) return shut();
  if (others === null || last.status !== 403) return arrived;
  if (refuses(others.front)) return shut();
  // One that was asked too much says nothing of the page.
  const isAlike = others.missing?.status === last.status && refuses(others.missing);
  return isAlike ? outcome("unsure", "refuses-all", arrived.hops) : arrived;
}

/** Whether an answer is a refusal that does not ask who somebody is. */
export function refuses({ status, asksWho }: Hop): boolean {
  return refusals.has(status ?? 0) && !asksWho;
}

/** Whether other pages of the host can tell more about a refusal. */
export function asksOthers({ hops }: Outcome): boolean {
  const last = hops.at(-1);
  return last?.status === 403 && refuses(last);
}
