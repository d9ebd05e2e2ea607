import type { Node } from "prosemirror-model";

/** In which direction lines are read. */
export type Direction = "ltr" | "rtl";

/** The scripts in use that are written from right to left (ISO 15924). */
const rightToLeft = new Set("Adlm Arab Hebr Mand Nkoo Rohg Samr Syrc Thaa Yezi".split(" "));
/** Where Unicode keeps the letters that are written so (its DerivedBidiClass). */
const ofThem = "\\u0590-\\u08ff\\ufb1d-\\ufdff\\ufe70-\\ufeff\\u{10800}-\\u{10fff}\\u{1e800}-\\u{1efff}";
const toLeft = new RegExp(`[${ofThem}](?<=\\p{L})`, "u");
const strong = /\p{L}/gu;

/** Whether a text has letters that are written from right to left. */
export function hasLettersToLeft(text: string): boolean {
  return toLeft.test(text);
}

/** The direction of a language's script. @param tag of BCP 47; what is none counts as written from left to right */
export function languageDirection(tag: string): Direction {
  try {
    return rightToLeft.has(new Intl.Locale(tag).maximize().script ?? "") ? "rtl" : "ltr";
  } catch (error) {
    if (error instanceof RangeError) return "ltr";
    throw error;
  }
}

/**
 * The direction of a paragraph in a book of a direction: its first strong letter's (UAX 9, P2 and P3), unless that is
 * against the book's and most of its letters are not: a foreign name at its beginning does not turn a paragraph round.
 */
export function textDirection(text: string, book: Direction): Direction {
  if (book === "ltr" && !toLeft.test(text)) return book;
  const letters = text.match(strong) ?? [];
  const counts = { ltr: 0, rtl: 0 };
  for (const letter of letters) counts[toLeft.test(letter) ? "rtl" : "ltr"]++;
  const [first] = letters;
  if (first === undefined) return book;
  const own = toLeft.test(first) ? "rtl" : "ltr";
  return own === book || counts[book] > counts[own] ? book : own;
}

/** The direction of a block of a manuscript where it is not the book's; listings are written from left to right. */
export function turnedDirection(block: Node, book: Direction): Direction | null {
  const own = block.type.spec.code ? "ltr" : textDirection(block.textContent, book);
  return own === book ? null : own;
}
