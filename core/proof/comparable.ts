import { hasLettersToLeft } from "../manuscript/direction.ts";
import { foldBlanks, type FormatTraits } from "./exported-link.ts";
import { isAscii } from "./letters.ts";

/**
 * The words as they are compared. E-books and web pages keep them to the letter, blanks folded. A PDF has no blanks
 * of its own, only distances, and hyphens at its line ends, so both are left out on both sides there, and so is what is
 * never shown. Nor does it say where among words from right to left a sign stands that has no direction of its own.
 */
export function comparable(text: string, traits: FormatTraits): string {
  const normal = text.normalize("NFC");
  if (!traits.isPaged) return foldBlanks(normal);
  const shown = asSet(normal);
  if (!hasLettersToLeft(shown)) return shown;
  return shown.replace(signs, "") + (shown.match(signs) ?? []).sort().join("");
}

/** Words without what a page has of its own or never shows: blanks, and hyphens at its line ends. */
export function asSet(text: string): string {
  if (isAscii(text)) return text.replace(/[\s-]+/g, "");
  return text.normalize("NFKC").replace(/[\s\p{Default_Ignorable_Code_Point}\u2010\u2011-]+/gu, "");
}

const signs = /[\p{P}\p{S}]/gu;
