/** Where a field leads (ECMA-376, 17.16.5); null where it leads nowhere. */
export interface FieldLink {
  href: string;
  title: string | null;
}

/** The parts of a field's instruction: words, quoted or not, and switches. */
function partsOf(instruction: string): string[] {
  const parts = instruction.matchAll(/"((?:[^"\\]|\\.)*)"|(\S+)/gs);
  return [...parts].map(([, quoted, word]) => quoted?.replace(/\\(["\\])/g, "$1") ?? word!);
}

/**
 * Reads a field's instruction: a HYPERLINK, or one that follows a bookmark and is a jump to it.
 * @returns null for a field that is no link
 */
export function linkOfField(instruction: string): FieldLink | null {
  const [name = "", ...rest] = partsOf(instruction.trim());
  switch (name.toUpperCase()) {
    case "HYPERLINK":
      return hyperlink(rest);
    case "REF":
    case "PAGEREF":
    case "NOTEREF":
      return rest.length > 0 && rest.some((part) => /^\\h$/i.test(part))
        ? { href: `#${rest[0]!}`, title: null }
        : null;
    default:
      return null;
  }
}

function hyperlink(parts: readonly string[]): FieldLink | null {
  let address = "";
  let place = "";
  let title: string | null = null;
  for (let i = 0; i < parts.length; i++) {
    const part = parts[i]!;
    if (/^\\l$/i.test(part)) place = parts[++i] ?? "";
    else if (/^\\o$/i.test(part)) title = parts[++i] ?? null;
    else if (/^\\t$/i.test(part)) i++;
    else if (!part.startsWith("\\") && address === "") address = part;
  }
  const href = address + (place === "" ? "" : `#${place}`);
  return href === "" ? null : { href, title };
}
