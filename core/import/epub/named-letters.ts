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
