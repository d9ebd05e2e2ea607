import { decodeHTML } from "entities";

/**
 * Text of a page in which letters that the names of HTML stand for, as XHTML 1.1 lets them, are told by their numbers, so
 * that a parser of XML without its document type reads them.
 */
export function withoutNamedLetters(text: string): string {
  return text.replace(/&(?!(?:amp|lt|gt|quot|apos);)([a-z][a-z\d]*);/gi, (whole) => {
    const letters = decodeHTML(whole);
    return letters === whole ? whole : [...letters].map((one) => `&#${one.codePointAt(0)};`).join("");
  });
}

/** A name that stands for more would let a page grow without end. */
const longestMeaning = 500;
/** Each letter of what it declares is read in one way alone, so that one that never ends is not read in every other. */
const documentType =
  /<!DOCTYPE\b[^>[]*(?:\[((?:"[^"]*"|'[^']*'|<!--(?:(?!-->)[^])*-->|<(?!!--)|[^\]"'<])*)\]\s*)?>/i;
const declaration = /<!ENTITY\s+([^\s%]+)\s+("[^"]*"|'[^']*')\s*>/g;

/** Text of a page without its document type, with what the names mean that this declares (XML 1.0, 4.2.1) in their places. */
export function withoutDocumentType(text: string): string {
  const [type = "", declared = ""] = documentType.exec(text) ?? [];
  const own = new Map(
    [...declared.matchAll(declaration)].map(([, name, quoted]) => [name!, quoted!.slice(1, -1)]),
  );
  const rest = text.replace(type, "");
  if (own.size === 0) return rest;
  return rest.replace(/&([^\s&;#]+);/g, (whole, name: string) => {
    const meaning = own.get(name);
    return meaning !== undefined && meaning.length <= longestMeaning ? meaning : whole;
  });
}
