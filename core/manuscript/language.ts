import type { Node } from "prosemirror-model";

/**
 * A language tag as it is written (BCP 47; RFC 5646, 2.1.1: case tells nothing, and has a custom).
 * @returns null for what is no tag of a language
 */
export function languageTag(given: string): string | null {
  const tag = given.trim().replaceAll("_", "-");
  // A tag that begins with a language's code; one of private use alone tells a reader's program nothing.
  if (!/^[a-z]{2,3}(-[a-z0-9]{1,8})*$/i.test(tag) || tag.length > longestTag) return null;
  try {
    return Intl.getCanonicalLocales(tag)[0] ?? null;
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}

/** The longest that is kept (RFC 5646, 4.4.1). */
const longestTag = 35;

/** The language in which some text is marked to be; null where it is in its book's. */
export function languageOf(text: Node): string | null {
  const mark = text.marks.find(({ type }) => type.name === "language");
  return mark ? (mark.attrs["tag"] as string) : null;
}

// Common practice: the language that most books in a script are written in.
const mostlyIn: Record<string, string> = {
  Arabic: "ar",
  Armenian: "hy",
  Bengali: "bn",
  Cyrillic: "ru",
  Devanagari: "hi",
  Ethiopic: "am",
  Georgian: "ka",
  Greek: "el",
  Gujarati: "gu",
  Gurmukhi: "pa",
  Han: "zh",
  Hangul: "ko",
  Hebrew: "he",
  Hiragana: "ja",
  Kannada: "kn",
  Katakana: "ja",
  Khmer: "km",
  Lao: "lo",
  Malayalam: "ml",
  Myanmar: "my",
  Oriya: "or",
  Sinhala: "si",
  Tamil: "ta",
  Telugu: "te",
  Thaana: "dv",
  Thai: "th",
  Tibetan: "bo",
};
const scripts = Object.entries(mostlyIn).map(([script, language]) => ({
  language,
  letters: new RegExp(`\\p{Script=${script}}`, "gu"),
}));
/** Letters that tell a language from others of its script. */
const telling: [of: string, language: string, letters: RegExp][] = [
  ["ar", "fa", /[\u06a9\u06cc\u067e\u0686\u0698]/gu],
  ["ar", "ur", /[\u0679\u0688\u0691\u06d2\u06ba]/gu],
  ["ru", "uk", /[\u0456\u0457\u0454\u0491]/giu],
];
/** Of the letters of a text, so many are of its language's script. */
const leastShare = 0.4;
const leastTelling = 0.01;
/** A letter of Chinese, Japanese or Korean says as much as so many of others: listings and names beside it count for less. */
const lettersOfWord = 3;

/**
 * The language that the letters of a text tell; null where they do not, as Latin ones. It is a guess, for a manuscript that
 * does not say in which language it is.
 */
export function guessLanguage(text: string): string | null {
  let all = text.match(/\p{L}/gu)?.length ?? 0;
  const counts = new Map<string, number>();
  for (const { language, letters } of scripts) {
    let count = text.match(letters)?.length ?? 0;
    if (/^(zh|ja|ko)$/.test(language)) {
      all += count * (lettersOfWord - 1);
      count *= lettersOfWord;
    }
    if (count > 0) counts.set(language, (counts.get(language) ?? 0) + count);
  }
  // Japanese is written in Han letters too.
  const japanese = counts.get("ja") ?? 0;
  if (japanese > leastTelling * all) counts.set("ja", japanese + (counts.get("zh") ?? 0));
  const [most] = [...counts].sort(([, a], [, b]) => b - a);
  if (!most || most[1] < leastShare * all) return null;
  const [language, count] = most;
  const closer = telling.findLast(
    ([of, , letters]) => of === language && (text.match(letters)?.length ?? 0) > leastTelling * count,
  );
  return closer?.[1] ?? language;
}
