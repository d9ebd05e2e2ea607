import type { BookFonts } from "../../../manuscript/book-fonts.ts";
import { scriptName, scriptOf, scriptsIn } from "../../../manuscript/scripts.ts";

/** A run of letters, and by which of the book's script fonts it is set; null for the book's own fonts. */
export interface ScriptRun {
  letters: string;
  fonts: number | null;
}

/** Which families have a shape for a code point. */
export interface Shapes {
  has(family: string, codePoint: number): boolean;
}

/** The families in which books are set: all that is of no script in the list below is looked for in them, in this order. */
export const textFamilies = [
  "Literata",
  "Noto Serif",
  "Noto Sans Symbols 2",
  "Noto Sans Symbols",
  "Noto Sans Math",
  "Noto Emoji",
  "Noto Music",
  "Noto Sans Thai",
  // For signs that stand without letters of its scripts.
  "Noto Serif CJK SC",
];
export const codeFamilies = ["JetBrains Mono", "Noto Sans", ...textFamilies.slice(1)];

/** In which families a book is set. */
export interface BookFamilies {
  text: string[];
  headings: string[];
  code: string[];
  /** Those of the author's own among them. */
  own: string[];
}

/** The author's own families before the usual, and all of them in every part: a letter that one of them has is shown. */
export function familiesOfBook({ text, headings, code }: BookFonts): BookFamilies {
  const given = (families: (string | null)[]): string[] => [
    ...new Set(families.filter((family) => family !== null)),
  ];
  const own = given([text, headings, code]);
  const [codeUsual, ...codeOthers] = codeFamilies;
  return {
    text: given([...own, ...textFamilies]),
    headings: given([headings, ...own, ...textFamilies]),
    code: given([code ?? codeUsual!, ...own, codeUsual!, ...codeOthers]),
    own,
  };
}

const serif = new Set(
  "Ahom Armenian Balinese Bengali Devanagari Dogra Ethiopic Georgian Grantha Gujarati Gurmukhi Hebrew Kannada Khmer Khojki Lao Malayalam Myanmar Nyiakeng_Puachue_Hmong Sinhala Tamil Tangut Telugu Thai Tibetan Yezidi".split(
    " ",
  ),
);
/** Families whose names in their files are not made of the script's. */
const ofOwnName: Record<string, string> = {
  Arabic: "Noto Naskh Arabic",
  Nko: "Noto Sans NKo",
  Phags_Pa: "Noto Sans PhagsPa",
};
/** Further names by which the typesetter knows families: those that were cut short to 31 letters. */
const shortNames: Record<string, string> = {
  Anatolian_Hieroglyphs: "Noto Sans AnatoHiero",
  Canadian_Aboriginal: "Noto Sans CanAborig",
  Caucasian_Albanian: "Noto Sans CaucAlban",
  Egyptian_Hieroglyphs: "Noto Sans EgyptHiero",
  Imperial_Aramaic: "Noto Sans ImpAramaic",
  Inscriptional_Pahlavi: "Noto Sans InsPahlavi",
  Inscriptional_Parthian: "Noto Sans InsParthi",
  Meetei_Mayek: "Noto Sans MeeteiMayek",
  New_Tai_Lue: "Noto Sans NewTaiLue",
  Nyiakeng_Puachue_Hmong: "Noto Serif Hmong Nyiakeng",
  Old_Hungarian: "Noto Sans OldHung",
  // It takes the last word for a style.
  Old_Italic: "Noto Sans Old",
  Old_North_Arabian: "Noto Sans OldNorArab",
  Old_Persian: "Noto Sans OldPersian",
  Old_Sogdian: "Noto Sans OldSogdian",
  Old_South_Arabian: "Noto Sans OldSouArab",
  Pau_Cin_Hau: "Noto Sans PauCinHau",
  Psalter_Pahlavi: "Noto Sans PsaPahlavi",
  SignWriting: "Noto Sans SignWrit",
  Warang_Citi: "Noto Sans WarangCiti",
  Zanabazar_Square: "Noto Sans Zanabazar",
};
const ofCjk = new Set(["Bopomofo", "Han", "Hangul", "Hiragana", "Katakana"]);
// Signs between their letters, and letters as wide as theirs.
const cjkSigns = "\\u{3000}-\\u{303f}\\u{ff00}-\\u{ffef}";

/** The family for a script; for those of Chinese, Japanese and Korean it goes by the language. */
export function familyOf(script: string, language: string): string {
  if (ofCjk.has(script)) return `Noto Serif CJK ${cjkLetters(script, language)}`;
  return ofOwnName[script] ?? `Noto ${serif.has(script) ? "Serif" : "Sans"} ${scriptName(script)}`;
}

/** Han letters have other shapes in each country; the letters of one of them alone tell which it is. */
function cjkLetters(script: string, tag: string): string {
  const language = tag.toLowerCase();
  if (/^ja\b/.test(language)) return "JP";
  if (/^ko\b/.test(language)) return "KR";
  if (/^(zh|yue)\b.*-hk\b|^yue\b/.test(language)) return "HK";
  if (/^zh\b.*-(hant|tw|mo)\b/.test(language)) return "TC";
  if (/^zh\b/.test(language)) return "SC";
  if (script === "Hiragana" || script === "Katakana") return "JP";
  if (script === "Hangul") return "KR";
  return script === "Bopomofo" ? "TC" : "SC";
}

// Signs that several scripts share, and marks that any letter can have.
const shared = /(?![\0-\x7f])[\p{sc=Common}\p{sc=Inherited}]/gu;

/**
 * The families of a book, and behind them those of scripts whose signs stand in its text: some of these stand apart from
 * all letters of their script, as a full stop that is spoken of, or a mark on a circle.
 */
export function withFamiliesOfSigns(families: BookFamilies, text: string, language: string): BookFamilies {
  const signs = new Set<string>();
  for (const [sign] of text.matchAll(shared)) signs.add(sign);
  const others = familiesOfLetters(signs, language);
  const and = (own: string[]): string[] => [...new Set([...own, ...others])];
  return {
    ...families,
    text: and(families.text),
    headings: and(families.headings),
    code: and(families.code),
  };
}

/** The families for the scripts of letters, and of signs that scripts share; for those of all there is none. */
export function familiesOfLetters(letters: Iterable<string>, language: string): string[] {
  const scripts = new Set([...letters].map(scriptOf).filter((script) => script !== null));
  return familiesOf([...scripts], language);
}

/** The fonts for the scripts of a book, and its texts in runs of one script each. */
export class BookScripts {
  /** By the numbers that runs have. */
  readonly families: string[][] = [];
  private readonly scripts: string[];
  private readonly runs: RegExp | null;
  /** The number of the first font for each language. */
  private readonly firsts = new Map<string, number>();

  /**
   * @param text all of the book's
   * @param fonts by which the rest of it is set
   * @param shapes what the author's own have letters for
   */
  constructor(
    private readonly text: string,
    private readonly language: string,
    private readonly fonts: Pick<BookFamilies, "text" | "own">,
    private readonly shapes: Shapes,
  ) {
    this.scripts = scriptsIn(text);
    const patterns = this.groups().map((group) => (ofCjk.has(group[0]!) ? cjkRun(group) : runOf(group[0]!)));
    this.runs =
      patterns.length > 0 ? new RegExp(patterns.map((pattern) => `(${pattern})`).join("|"), "gu") : null;
  }

  /**
   * A text as the typesetter takes it: as it is, where the book's own fonts set all of it.
   * @param language where it is in another than the book
   */
  spell(text: string, language = this.language): string | ScriptRun[] {
    if (this.runs === null) return text;
    const first = this.firstOf(language);
    const spelled: ScriptRun[] = [];
    let at = 0;
    for (const match of text.matchAll(this.runs)) {
      if (match.index > at) spelled.push({ letters: text.slice(at, match.index), fonts: null });
      const group = match.slice(1).findIndex((one) => one !== undefined);
      spelled.push({ letters: match[0], fonts: first + group });
      at = match.index + match[0].length;
    }
    if (at === 0) return text;
    if (at < text.length) spelled.push({ letters: text.slice(at), fonts: null });
    return spelled;
  }

  /** The scripts that are set by one font each, those of Chinese, Japanese and Korean together. */
  private groups(): string[][] {
    const cjk = this.scripts.filter((script) => ofCjk.has(script));
    const others = this.scripts.filter((script) => !ofCjk.has(script)).map((script) => [script]);
    return cjk.length > 0 ? [...others, cjk] : others;
  }

  private firstOf(language: string): number {
    let first = this.firsts.get(language);
    if (first === undefined) {
      this.firsts.set(language, (first = this.families.length));
      this.families.push(
        ...this.groups().map((group) => [
          ...this.ownOf(group),
          ...familiesOf(group, language),
          ...this.fonts.text,
        ]),
      );
    }
    return first;
  }

  /** The author's own families that have all of the book's letters of some scripts: words are set in one font each. */
  private ownOf(scripts: readonly string[]): string[] {
    if (this.fonts.own.length === 0) return [];
    const letters = new RegExp(`[${scripts.map((script) => `\\p{sc=${script}}`).join("")}]`, "gu");
    const codes = [...new Set(this.text.match(letters))].map((letter) => letter.codePointAt(0)!);
    return this.fonts.own.filter((family) => codes.every((code) => this.shapes.has(family, code)));
  }
}

/** Where the language tells nothing of Han letters, letters that one country alone uses do. */
function familiesOf(scripts: readonly string[], language: string): string[] {
  const telling = ["Hiragana", "Katakana", "Hangul", "Bopomofo"].filter((script) => scripts.includes(script));
  const families = [...telling, ...scripts].map((script) => shortNames[script] ?? familyOf(script, language));
  return [...new Set(families)];
}

function cjkRun(scripts: readonly string[]): string {
  return `[${scripts.map((script) => `\\p{sc=${script}}`).join("")}${cjkSigns}]+`;
}

/**
 * From the first letter of a script to the last between which there are only its own and those of all scripts, blanks
 * among them: what is set in one font is one piece, whose words a reader's program hears in their order.
 */
function runOf(script: string): string {
  const [own, signs] = [`\\p{sc=${script}}`, `\\p{scx=${script}}`];
  // What marks are shown on that stand for none (Unicode Standard, 2.11).
  const base = "(?:[\\u{25cc}\\u{a0}](?=\\p{M}))?";
  return `${base}${own}(?:[${signs}\\p{sc=Common}\\p{sc=Inherited}]*${own})?[${signs}\\p{M}]*`;
}
