import { percentDecoded } from "../destination/percent-decoded.ts";
/** The pages and places of a companion file, to which links can lead. */
export interface FilePlaces {
  /** How many pages it has; null where it has none. */
  pages: number | null;
  /** What each is called in an address behind its `#`, and in words. */
  places: { at: string; name: string }[];
}

/** As many places are told of one file. */
export const mostPlaces = 2_000;

/** Whether a file has the page or place that an address names behind its `#`. */
export function hasPlace({ pages, places }: FilePlaces, at: string): boolean {
  // What stands behind it says how much of the page is shown (RFC 8118).
  const page = /^page=(\d+)(?:&|$)/.exec(at)?.[1];
  if (page !== undefined && pages !== null) return Number(page) >= 1 && Number(page) <= pages;
  // Of a very long list not all are known.
  return (
    places.length >= mostPlaces || places.some((place) => percentDecoded(place.at) === percentDecoded(at))
  );
}
