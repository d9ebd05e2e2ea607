import { partsOf } from "../destination/url-of.ts";
import { tracking, withoutParts } from "../destination/address-parts.ts";
import type { KnownAnswer } from "./finding.ts";

/**
 * What two destinations share where whoever follows them meets the same thing (ACT rule b20e66, from memory): the same page,
 * whichever part of it is shown first, over which of the two protocols, whether or not its path ends with a slash, and
 * whatever counts its readers; or, where they were asked, the page at which asking ended.
 * @param destination as it is written
 */
export function purposeOf(destination: string, answers: ReadonlyMap<string, KnownAnswer>): string {
  if (!/^https?:/.test(destination)) return destination;
  const known = answers.get(destination);
  const end = known?.state === "sound" || known?.state === "moved" ? known.endsAt : null;
  const { address } = withoutParts({ kind: "web", address: end ?? destination }, tracking);
  const { hostname, port, pathname, search } = partsOf(address);
  return `${hostname.replace(/^www\./, "")}:${port}${pathname.replace(/\/+$/, "")}${search}`;
}
