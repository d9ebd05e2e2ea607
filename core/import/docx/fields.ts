import { elements, type XmlElement } from "../xml-tree.ts";

/** What a field cannot begin before and end in, and what is read apart, or not at all. */
const stories = new Set(["tc", "txbxContent", "Choice", "Fallback", "del", "moveFrom"]);

/** The signs within a text that begin a field which ends: one that never does would take all that follows for its own. */
export function endedFields(story: XmlElement): ReadonlySet<XmlElement> {
  const ended = new Set<XmlElement>();
  const within = (parent: XmlElement, begun: XmlElement[]): void => {
    for (const child of elements(parent)) {
      const kind = child.name === "fldChar" ? child.attributes["fldCharType"] : null;
      if (kind === "begin") begun.push(child);
      const field = kind === "end" ? begun.pop() : undefined;
      if (field) ended.add(field);
      within(child, stories.has(child.name) ? [] : begun);
    }
  };
  within(story, []);
  return ended;
}

/** Where a field leads (ECMA-376, 17.16.5); null where it leads nowhere. */
export interface FieldLink {
  href: string;
  title: string | null;
  /** How its words follow the bookmark; left out for words of the author's. A note's number is that of the note there. */
  follows?: "as-it-says" | "page" | "note";
  /** Left out where a press leads there. */
  isNoJump?: true;
}

/** The parts of a field's instruction: words, quoted or not, and switches. */
function partsOf(instruction: string): string[] {
  const parts = instruction.matchAll(/"((?:[^"\\]|\\.)*)"|(\S+)/gs);
  return [...parts].map(([, quoted, word]) => quoted?.replace(/\\(["\\])/g, "$1") ?? word!);
}

/**
 * Reads a field's instruction: a HYPERLINK, or one that follows a bookmark, be it a jump to it or not.
 * @returns null for a field that leads nowhere and follows nothing
 */
export function linkOfField(instruction: string): FieldLink | null {
  const [name = "", ...rest] = partsOf(instruction.trim());
  switch (name.toUpperCase()) {
    case "HYPERLINK":
      return hyperlink(rest);
    case "REF":
      return reference(rest, "as-it-says");
    case "PAGEREF":
      return reference(rest, "page");
    case "NOTEREF":
      return reference(rest, "note");
    default:
      return null;
  }
}

/** What follows a bookmark. */
function reference(parts: readonly string[], follows: NonNullable<FieldLink["follows"]>): FieldLink | null {
  const [bookmark] = parts;
  if (!bookmark || bookmark.startsWith("\\")) return null;
  const isJump = parts.some((part) => /^\\h$/i.test(part));
  return { href: `#${bookmark}`, title: null, follows, ...(isJump ? {} : { isNoJump: true }) };
}

/** What a SEQ field counts (ECMA-376, 17.16.5.56); null for any other field. */
export function countedByField(instruction: string): string | null {
  const [name = "", what = ""] = partsOf(instruction.trim());
  return name.toUpperCase() === "SEQ" ? what : null;
}

/** Of what a TOC field is the list (17.16.5.68); null for any other field. */
export function listedByField(instruction: string): "contents" | "figures" | "tables" | null {
  const [name = "", ...rest] = partsOf(instruction.trim());
  if (name.toUpperCase() !== "TOC") return null;
  const at = rest.findIndex((part) => /^\\[ac]$/i.test(part));
  if (at === -1) return "contents";
  return /^tab/i.test(rest[at + 1] ?? "") ? "tables" : "figures";
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
