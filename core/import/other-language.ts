import { guessLanguage, languageTag } from "../manuscript/language.ts";

/**
 * Whether words are in another language than the text's: programs note the author's own at each turn, and that of a
 * keyboard at words of another script.
 */
export function isOtherLanguage(tag: string, main: string | null, words: string): boolean {
  const languageIn = (whole: string): string => whole.split("-")[0]!.toLowerCase();
  if (main === null || /^(x-none|zxx)$/i.test(tag) || languageIn(tag) === languageIn(main)) return false;
  const letters = lettersOf(tag);
  return letters === null || letters.test(words) || !/\p{L}/u.test(words);
}

/** So many letters of a text tell its language. */
const enough = 200_000;

/**
 * The language of a text of which programs say one for each sort of letters: the first that is written with those of the
 * text, else what the letters tell; null where neither does.
 */
export function languageOfText(said: readonly (string | null | undefined)[], text: string): string | null {
  const guess = guessLanguage(text.slice(0, enough));
  const letters = lettersOf(guess ?? "en")!;
  const isOfText = (tag: string): boolean => {
    // Letters of China are written in Japan, too, and those of Japan are told from them.
    const isCjk = guess !== null && /^(zh|ja|ko)$/.test(guess);
    return isCjk ? tag.startsWith(guess) : lettersOf(tag)?.source === letters.source;
  };
  const tags = said.flatMap((one) => languageTag(one ?? "") ?? []);
  return tags.find(isOfText) ?? guess;
}

const written: Record<string, string> = {
  Jpan: "\\p{sc=Hani}\\p{sc=Hira}\\p{sc=Kana}",
  Hans: "\\p{sc=Hani}",
  Hant: "\\p{sc=Hani}\\p{sc=Bopo}",
  Kore: "\\p{sc=Hang}\\p{sc=Hani}",
};

/** By the codes of scripts. */
const known = new Map<string, RegExp | null>();

/** The letters with which a language is mostly written (Unicode CLDR, likely subtags); null where that is not known. */
function lettersOf(tag: string): RegExp | null {
  const whole = languageTag(tag);
  const script = whole === null ? undefined : new Intl.Locale(whole).maximize().script;
  if (script === undefined) return null;
  let letters = known.get(script);
  if (letters === undefined) known.set(script, (letters = lettersOfScript(script)));
  return letters;
}

function lettersOfScript(script: string): RegExp | null {
  try {
    return new RegExp(`[${written[script] ?? `\\p{sc=${script}}`}]`, "u");
  } catch {
    // A script that expressions do not know.
    return null;
  }
}
