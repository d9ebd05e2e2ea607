import type { WebDestination } from "./kinds/web.ts";
import { percentDecoded } from "./percent-decoded.ts";

/** A part of an address that tells somebody who came from where, and nothing about the page (common practice). */
export const tracking =
  /^(?:utm_[a-z]+|(?:fb|g|d|y|tt|s|irc)clid|msclkid|twclid|li_fat_id|gclsrc|wbraid|gbraid|mc_[ce]id|mkt_tok|_hs(?:enc|mi)|igshid|oly_(?:anon|enc)_id|vero_id|_openstat|pk_(?:campaign|kwd|source|medium|content)|mtm_[a-z]+|wt_mc|cmpid|ref_src|ref_url)$/i;

/** Names under which servers keep who is visiting (common practice), and what such a value looks like. */
export const session =
  /^(?:jsessionid|phpsessid|aspsessionid\w*|asp\.net_sessionid|cfid|cftoken|session_?id|sessid|sid)$/i;
export const sessionHandle = /^(?=.*\d)[\w.!~*-]{12,}$/;

interface Pattern {
  test: (text: string) => boolean;
}

/**
 * An address without those parts of its query, and of its path's last name behind a semicolon, whose name and value
 * match. All else stays as it is written, which `URLSearchParams` would not keep.
 * @returns the address as it is then, and the names of what was left out
 */
export function withoutParts(
  { address }: WebDestination,
  name: Pattern,
  value: Pattern = /(?:)/,
): { address: string; left: string[] } {
  if (!/[?;]/.test(address)) return { address, left: [] };
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
