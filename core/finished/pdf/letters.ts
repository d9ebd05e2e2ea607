import type { TextItem, TextMarkedContent } from "pdfjs-dist/types/src/display/api.js";
import type { Area } from "./pdf-page.ts";

/** A letter of a page, as it is shown. */
export interface Letter {
  text: string;
  /** About what it takes of the page: widths of single letters are not told. */
  area: Area;
  /** The marked content in which it stands, as pdf.js names it; null where it stands in none. */
  content: string | null;
  /** Whether a line ends with it. */
  endsLine: boolean;
}

// How far letters reach below their baseline and above it, of their height (common practice).
const [below, above] = [0.22, 0.78];

/** What pdf.js tells of a page’s text. */
interface PageContent {
  items: readonly (TextItem | TextMarkedContent)[];
  styles: Readonly<Record<string, { fontFamily: string }>>;
}

/** The letters of a page in the order of its content. @param content what pdf.js tells of its text, with marked content */
export function lettersOf({ items, styles }: PageContent): Letter[] {
  const letters: Letter[] = [];
  const open: (string | null)[] = [];
  for (const item of items) {
    if (!("str" in item)) {
      if (item.type === "endMarkedContent") open.pop();
      else open.push(item.id ?? null);
      continue;
    }
    const content = open.findLast((id) => id !== null) ?? null;
    const [a, b, c, d, x, y] = item.transform as [number, number, number, number, number, number];
    const along = unit(a, b);
    const up = unit(c, d);
    const height = item.height || Math.hypot(c, d);
    const texts = [...item.str];
    const isEven = styles[item.fontName]?.fontFamily === "monospace";
    const widths = texts.map((text) => (isEven ? 1 : usualWidth(text)));
    const step = item.width / widths.reduce((sum, width) => sum + width, 0);
    let passed = 0;
    texts.forEach((text, i) => {
      const [from, to] = [passed * step, (passed += widths[i]!) * step];
      const [start, end] = item.dir === "rtl" ? [item.width - to, item.width - from] : [from, to];
      const corner = (advance: number, rise: number): [number, number] => [
        x + along[0] * advance + up[0] * height * rise,
        y + along[1] * advance + up[1] * height * rise,
      ];
      const [p, q] = [corner(start, -below), corner(end, above)];
      letters.push({
        text,
        area: [Math.min(p[0], q[0]), Math.min(p[1], q[1]), Math.max(p[0], q[0]), Math.max(p[1], q[1])],
        content,
        endsLine: false,
      });
    });
    if (item.hasEOL && letters.length > 0) letters.at(-1)!.endsLine = true;
  }
  return letters;
}

/** How wide a letter is in most fonts, of the height of its line: pdf.js tells the width of whole pieces only. */
function usualWidth(text: string): number {
  if (/[\s.,:;'|!ijlI’‘·]/.test(text)) return 0.27;
  if (/[()[\]{}/\\ftr\-"“”„*]/.test(text)) return 0.36;
  if (/[mwMW@%—…]/.test(text)) return 0.86;
  if (/\p{Lu}/u.test(text)) return 0.68;
  // Ideographs and syllables fill their square.
  return /[\u2e80-\ud7af\uf900-\ufaff\uff00-\uffef]/.test(text) ? 1 : 0.5;
}

function unit(x: number, y: number): [number, number] {
  const length = Math.hypot(x, y) || 1;
  return [x / length, y / length];
}

/** The letters whose middle lies in one of some areas. */
export function lettersWithin(letters: readonly Letter[], areas: readonly Area[]): Letter[] {
  return letters.filter(({ area: [left, low, right, high] }) => {
    const [x, y] = [(left + right) / 2, (low + high) / 2];
    return areas.some((area) => area[0] <= x && x <= area[2] && area[1] <= y && y <= area[3]);
  });
}

/**
 * The words of which at least half lies within some areas, as a whole: areas are drawn loosely, and how wide a letter is
 * is about known.
 */
export function wordsWithin(letters: readonly Letter[], areas: readonly Area[]): string {
  const inside = new Set(lettersWithin(letters, areas));
  const words: string[] = [];
  for (let at = 0; at < letters.length;) {
    if (letters[at]!.text.trim() === "") {
      at++;
      continue;
    }
    const [, to] = wholeWords(letters, at, at);
    let word = letters.slice(at, to);
    // Signs beside a word belong to it only where they lie within too.
    const isBeside = (letter: Letter | undefined): boolean =>
      letter !== undefined && !inside.has(letter) && /^\p{P}+$/u.test(letter.text);
    while (isBeside(word.at(-1))) word = word.slice(0, -1);
    while (isBeside(word[0])) word = word.slice(1);
    if (word.filter((letter) => inside.has(letter)).length * 2 >= word.length && word.length > 0)
      words.push(wordsOf(word));
    at = to;
  }
  // Dots that lead from an entry to its number are no words.
  return words.join(" ").replace(/(\s*[.·]){4,}\s*/g, " ");
}

/** Letters as words, blanks folded. */
export function wordsOf(letters: readonly Letter[]): string {
  return letters
    .map(({ text, endsLine }) => (endsLine ? `${text} ` : text))
    .join("")
    .replace(/\s+/g, " ")
    .trim();
}

/** The areas that letters take, one for each line that they run over. */
export function areasOf(letters: readonly Letter[]): Area[] {
  const areas: Area[] = [];
  let isNewLine = true;
  for (const { text, area, endsLine } of letters) {
    const last = areas.at(-1);
    if (text.trim() !== "") {
      const isSameLine = last && !isNewLine && last[1] < area[3] && area[1] < last[3];
      if (isSameLine)
        areas[areas.length - 1] = [
          Math.min(last[0], area[0]),
          Math.min(last[1], area[1]),
          Math.max(last[2], area[2]),
          Math.max(last[3], area[3]),
        ];
      else areas.push(area);
      isNewLine = false;
    }
    if (endsLine) isNewLine = true;
  }
  return areas;
}

/** The letters of the word at a spot, or of the nearest one that is no further than a line away; none where there is nothing. */
export function nearestLetter(letters: readonly Letter[], x: number, y: number): number | null {
  let found: number | null = null;
  let least = Infinity;
  letters.forEach(({ text, area: [left, low, right, high] }, i) => {
    if (text.trim() === "") return;
    const dx = Math.max(left - x, 0, x - right);
    const dy = Math.max(low - y, 0, y - high);
    // Lines matter more than places along them.
    const away = dx + dy * 20;
    if (away < least) [found, least] = [i, away];
  });
  return found;
}

/** The words that stand where a spot of a page is, or right below it: what readers see who are taken there. */
export function wordsAt(letters: readonly Letter[], x: number | null, y: number, most = 60): string {
  const shown = letters
    .map((letter, at) => ({ letter, at }))
    .filter(({ letter }) => letter.text.trim() !== "");
  const below = shown.filter(
    ({ letter: { area } }) => (area[1] + area[3]) / 2 <= y && (x === null || area[2] >= x - 2),
  );
  const top = Math.max(...below.map(({ letter }) => letter.area[3]));
  const line = below.filter(({ letter }) => letter.area[3] > top - (letter.area[3] - letter.area[1]) / 2);
  const nearest = Math.min(...line.map(({ at }) => at));
  if (!Number.isFinite(nearest)) return "";
  const first = wholeWords(letters, nearest, nearest)[0];
  return wordsOf(letters.slice(...wholeWords(letters, first, Math.min(first + most, letters.length) - 1)));
}

/** Where the words begin and end of which some letters are the first and the last. */
export function wholeWords(
  letters: readonly Letter[],
  first: number,
  last: number,
): [from: number, to: number] {
  const goesOn = ({ text, endsLine }: Letter): boolean => text.trim() !== "" && !endsLine;
  let [from, to] = [first, last];
  while (from > 0 && goesOn(letters[from - 1]!)) from--;
  while (to < letters.length - 1 && goesOn(letters[to]!) && letters[to + 1]!.text.trim() !== "") to++;
  return [from, to + 1];
}
