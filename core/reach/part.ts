import { percentDecoded } from "../destination/percent-decoded.ts";

/** How the part of a page is looked for that a fragment names. */
export type WantedPart =
  /** The top of the page, which every page has. */
  | { kind: "top" }
  /** An element with one of these ids or, of an `a` element, names; where none has, scripts may lead there all the same. */
  | { kind: "element"; names: readonly string[]; isForScripts?: true }
  /** Something that a script of the page's own makes of it. */
  | { kind: "script" };

/** Lines of a listing, and what is written as a value, as a time of a film or a sheet of a table, are shown by scripts (common practice). */
const forScripts = /^L\d+(?:C\d+)?(?:-L?\d+(?:C\d+)?)?$|^[\w.-]+=/;
/** What sites put before the ids of texts that others wrote, and leave out of the addresses that they give (common practice). */
const idsOfOthers = "user-content-";

/**
 * What an address's fragment asks a page for, as the HTML standard finds the indicated part: no or an
 * empty fragment is the top; an element by the fragment as it stands, then by its percent-decoded form; "top" in
 * whatever case is the top where no element has that name, so it is never missing. What follows `:~:` is
 * for the browser alone. A fragment like a path is a script's own.
 */
export function wantedPart(address: string): WantedPart {
  const fragment = new URL(address).hash.slice(1).replace(/:~:.*$/s, "");
  if (fragment === "") return { kind: "top" };
  const decoded = percentDecoded(fragment);
  if (decoded.toLowerCase() === "top") return { kind: "top" };
  if (/^[!/]/.test(fragment)) return { kind: "script" };
  const own = decoded === fragment ? [fragment] : [fragment, decoded];
  const names = [...own, ...own.map((name) => idsOfOthers + name)];
  return { kind: "element", names, ...(forScripts.test(decoded) ? { isForScripts: true } : {}) };
}
