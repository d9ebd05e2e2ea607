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

/** The letters of a page in the order of its content. @param items what pdf.js tells of its text, with marked content */
export function lettersOf(items: readonly (TextItem | TextMarkedContent)[]): Letter[] {
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
    const texts = [...item.str];
    const step = texts.length === 0 ? 0 : item.width / texts.length;
    const height = item.height || Math.hypot(c, d);
    texts.forEach((text, i) => {
      const at = item.dir === "rtl" ? texts.length - 1 - i : i;
      const corner = (advance: number, rise: number): [number, number] => [
        x + along[0] * step * advance + up[0] * height * rise,
        y + along[1] * step * advance + up[1] * height * rise,
      ];
      const [p, q] = [corner(at, -below), corner(at + 1, above)];
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
    const away = dx + dy * 4;
    if (away < least) [found, least] = [i, away];
  });
  return found;
}
