import type { Hop, Outcome } from "./outcome.ts";
import { outcome } from "./outcome.ts";
import type { PageFacts } from "./page-reader.ts";
import { tellsGuard } from "./page-phrases.ts";

const refusals = new Set([403, 429, 503]);

/**
 * Whether who refuses does so to members only, or to all programs (common practice: neither has a status of its own).
 * A door for members asks who somebody is (RFC 9110, 11.6.1), or opens the host's front page.
 * @param refusal what the refusal itself says; null where it is no page
 * @param front what the front page of the host answered; null where it was not asked
 */
export function judgeGuard(arrived: Outcome, refusal: PageFacts | null, front: Hop | null): Outcome {
  const last = arrived.hops.at(-1);
  if (!last || !refusals.has(last.status ?? 0) || last.asksWho) return arrived;
  const tells = refusal !== null && tellsGuard(refusal.title ?? refusal.heading, refusal.words);
  const isShut = front !== null && refusals.has(front.status ?? 0) && last.status === 403;
  return tells || isShut ? outcome("unsure", "shut-to-programs", arrived.hops) : arrived;
}

/** Whether the front page of the host can tell more about a refusal. */
export function asksFront({ hops }: Outcome): boolean {
  const last = hops.at(-1);
  return last?.status === 403 && !last.asksWho;
}
