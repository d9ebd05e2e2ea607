import {
  areasOf,
  lettersWithin,
  nearestLetter,
  wholeWords,
  wordsWithin,
  wordsOf,
  type Letter,
} from "@vennet/core/finished/pdf/letters";
import { boxAround, type Area } from "@vennet/core/finished/pdf/pdf-page";

/** What an author has picked on a page: what a link is to lie on. */
export interface Picked {
  areas: Area[];
  words: string;
}

/** The whole words from one spot of a page to another, in the order of its text; null where there are none. */
export function wordsBetween(
  letters: readonly Letter[],
  from: readonly [number, number],
  to: readonly [number, number],
): Picked | null {
  const [a, b] = [nearestLetter(letters, ...from), nearestLetter(letters, ...to)];
  if (a === null || b === null) return null;
  return pickedOf(letters.slice(...wholeWords(letters, Math.min(a, b), Math.max(a, b))));
}

function pickedOf(given: readonly Letter[]): Picked | null {
  // The sign of an item is not linked.
  const first = given.findIndex(({ text }) => !/^[\s•▪◦‣–]$/.test(text));
  const letters = given.slice(Math.max(0, first));
  const areas = areasOf(letters).map(rounded);
  return areas.length === 0 ? null : { areas, words: wordsOf(letters) };
}

/** A drawn area with the words in it; where it is to snap, drawn tight around them. */
export function areaPicked(letters: readonly Letter[], area: Area, snaps: boolean): Picked {
  const inside = lettersWithin(letters, [area]).filter(({ text }) => text.trim() !== "");
  if (!snaps || inside.length === 0) return { areas: [rounded(area)], words: wordsWithin(letters, [area]) };
  // A word that is half in is meant as a whole.
  const around = boxAround(
    inside.flatMap((letter) => {
      const at = letters.indexOf(letter);
      return letters.slice(...wholeWords(letters, at, at)).map((one) => one.area);
    }),
  );
  return { areas: [rounded(around)], words: wordsWithin(letters, [around]) };
}

/** Smaller than this a drawn box is a line or a dot, in points; larger than this share of its page it is the page’s ground. */
const leastDrawn = 8;
const mostDrawn = 0.7;

/** The smallest picture or drawn shape at a spot of a page, as a button is one; null where there is none. */
export function drawnAt(
  { letters, drawn }: { letters: readonly Letter[]; drawn: readonly Area[] },
  page: Area,
  x: number,
  y: number,
): Picked | null {
  const sizeOf = ([left, low, right, high]: Area): number => (right - left) * (high - low);
  const [found] = drawn
    .filter(([left, low, right, high]) => left <= x && x <= right && low <= y && y <= high)
    .filter(([left, low, right, high]) => right - left >= leastDrawn && high - low >= leastDrawn)
    .filter((area) => sizeOf(area) <= sizeOf(page) * mostDrawn)
    .sort((a, b) => sizeOf(a) - sizeOf(b));
  return found ? { areas: [rounded(found)], words: wordsWithin(letters, [found]) } : null;
}

/** Where some words stand on a page, each time. Blanks and line ends between them do not matter, nor does case. */
export function findWords(letters: readonly Letter[], wanted: string): Picked[] {
  const sought = wanted.replace(/\s+/g, "").toLowerCase();
  if (sought === "") return [];
  const seen = letters
    .map((letter, at) => ({ at, text: letter.text.toLowerCase() }))
    .filter(({ text }) => text.trim() !== "");
  const text = seen.map((one) => one.text).join("");
  // One letter of the page may be several of the text, as in ligatures.
  const letterAt = seen.flatMap(({ at, text: one }) => Array.from({ length: one.length }, () => at));
  const found: Picked[] = [];
  for (let at = text.indexOf(sought); at !== -1; at = text.indexOf(sought, at + sought.length)) {
    const picked = pickedOf(letters.slice(letterAt[at], letterAt[at + sought.length - 1]! + 1));
    if (picked) found.push(picked);
  }
  return found;
}

function rounded(area: Area): Area {
  return area.map((edge) => Math.round(edge * 100) / 100) as unknown as Area;
}
