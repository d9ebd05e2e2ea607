import { decodePage } from "../text-encoding.ts";
import type { BroughtFile } from "../manuscript-reader.ts";

/** The text of a page as a parser of HTML reads it: of one that is XHTML by its name, what XML alone understands is written out. */
export function textOfPage({ name, bytes }: BroughtFile): string {
  const text = decodePage(bytes);
  return /\.xhtml$/i.test(name) ? asHtml(text) : text;
}

/** The elements that have no end tag in HTML (WHATWG HTML, 13.1.2). */
const withoutEnd = new Set("area base br col embed hr img input link meta param source track wbr".split(" "));

/**
 * XHTML with an end tag for each element that is empty by its start tag (XML 1.0, 3.1), which HTML takes for one that
 * goes on, and without sections that are marked as text (2.7). Lines stay as they are.
 */
function asHtml(text: string): string {
  // HTML takes the end of what a document type declares within itself (2.8) for words.
  const typed = text.replace(
    /(<!DOCTYPE[^>[]*)\[([^\]]*)\]\s*>/i,
    (_, start: string, declared: string) => `${start}>${declared.replace(/.+/g, "")}`,
  );
  return typed.replace(
    /<!--[\s\S]*?-->|<!\[CDATA\[([\s\S]*?)\]\]>|<([a-z][\w:.-]*)((?:"[^"]*"|'[^']*'|[^"'<>])*?)\/>/gi,
    (whole, words?: string, name?: string, attributes?: string) => {
      if (words !== undefined) return words.replaceAll("&", "&amp;").replaceAll("<", "&lt;");
      if (name === undefined || withoutEnd.has(name.toLowerCase())) return whole;
      return `<${name}${attributes}></${name}>`;
    },
  );
}
