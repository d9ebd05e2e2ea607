import { percentDecoded } from "../destination/percent-decoded.ts";

/** How the part of a page is looked for that a fragment names. */
export type WantedPart =
  /** The top of the page, which every page has. */
  | { kind: "top" }
  /** An element with one of these ids or, of an `a` element, names. */
  | { kind: "element"; names: readonly string[] }
  /** Something that a script of the page's own makes of it. */
  | { kind: "script" };

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
  return { kind: "element", names: decoded === fragment ? [fragment] : [fragment, decoded] };
}
