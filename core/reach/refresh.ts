/** A page that leads on later than this, in seconds, is read until then. */
const soon = 10;

/**
 * Where a page leads its readers by itself, soon: what a `meta` of `http-equiv="refresh"` or a header of that name says.
 * WHATWG HTML, "shared declarative refresh steps" (from memory).
 * @returns an address as it is written, mostly relative; null where the page stays, or is only shown anew
 */
export function refreshTarget(content: string): string | null {
  const read = /^\s*(\d*)(?:\.[\d.]*)?(?=[\s;,]|$)(?:\s*[;,]|\s)\s*(.*)$/s.exec(content);
  if (!read || Number(read[1]) > soon) return null;
  const named = /^url\s*=\s*(.*)$/is.exec(read[2]!)?.[1] ?? read[2]!;
  const quoted = /^(["'])(.*?)(?:\1|$)/s.exec(named)?.[2];
  const target = (quoted ?? named).trim();
  return target === "" ? null : target;
}
