import type { WebDestination } from "../destination/kinds/web.ts";
import { percentDecoded } from "../destination/percent-decoded.ts";

/**
 * An address without those parts of its query, and of its path's last name behind a semicolon, whose name and value
 * match. All else stays as it is written, which `URLSearchParams` would not keep.
 * @returns the address as it is then, and the names of what was left out
 */
export function withoutParts(
  { address }: WebDestination,
  name: RegExp,
  value = /(?:)/,
): { address: string; left: string[] } {
  const left: string[] = [];
  const isKept = (part: string): boolean => {
    const [, key = "", held = ""] = /^([^=]*)=?(.*)$/s.exec(part)!;
    if (!name.test(percentDecoded(key)) || !value.test(held)) return true;
    left.push(percentDecoded(key));
    return false;
  };
  const [, path = "", query, fragment = ""] = /^([^?#]*)(?:\?([^#]*))?(#.*)?$/s.exec(address)!;
  const [start = "", ...matrix] = path.split(";");
  const keptPath = [start, ...matrix.filter(isKept)].join(";");
  const keptQuery = query?.split("&").filter(isKept).join("&");
  const isEmpty = keptQuery === undefined || (keptQuery === "" && query !== "");
  return { address: keptPath + (isEmpty ? "" : `?${keptQuery}`) + fragment, left };
}
