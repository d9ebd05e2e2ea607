import { writeDestination } from "../destination/destination.ts";
import { urlOf } from "../destination/url-of.ts";
import type { Destination } from "../destination/kinds/kinds.ts";

/**
 * What two destinations share where whoever follows them meets the same thing (ACT rule b20e66, from memory): the same page,
 * whichever part of it is shown first, over which of the two protocols, and whether or not its path ends with a slash.
 */
export function purposeOf(destination: Destination): string {
  if (destination.kind !== "web") return writeDestination(destination);
  const { hostname, port, pathname, search } = urlOf(destination);
  return `${hostname.replace(/^www\./, "")}:${port}${pathname.replace(/\/+$/, "")}${search}`;
}
