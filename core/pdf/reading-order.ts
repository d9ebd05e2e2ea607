/** Letters of a page that are shown together. */
export interface ShownLetters {
  words: string;
  /** Where they begin, on their baseline, in points from the page's corner. */
  x: number;
  y: number;
  height: number;
  isRightToLeft: boolean;
  /** The marked content in which they stand. */
  content: string | null;
  /** Whether a line ends after them. */
  endsLine: boolean;
}

/** Baselines of letters on one line lie no further apart, in shares of their height; marks are raised by less. */
const sameLine = 0.6;

/**
 * The letters of some marked contents in the order in which they are read. What is written from right to left is shown
 * as it stands, from left to right (ISO 32000-1, 14.8.2.3.3), and is read the other way.
 */
export function inReadingOrder<Letters extends ShownLetters>(shown: readonly Letters[]): Letters[] {
  const read: Letters[] = [];
  const turned = new Set(shown.filter(turns).map(({ content }) => content));
  // Signs that are of the same content as words from right to left are read so too, others only between such words.
  const isOfThem = (letters: Letters): boolean =>
    turns(letters) || (isNeutral(letters) && letters.content !== null && turned.has(letters.content));
  for (let at = 0; at < shown.length;) {
    const first = shown[at]!;
    let end = at + 1;
    if (isOfThem(first)) {
      let next = at + 1;
      for (; next < shown.length && isOnLineOf(first, shown[next]!); next++) {
        if (isOfThem(shown[next]!)) end = next + 1;
        else if (!isNeutral(shown[next]!)) break;
      }
      // Of two that begin at one point, as the parts of some joined letters, the one behind is read first.
      const run = shown.slice(at, end).reverse();
      const endsLine = run.some((letters) => letters.endsLine);
      run
        .sort((a, b) => b.x - a.x)
        .forEach((letters, i) =>
          read.push({
            ...letters,
            words: turnedBack(letters.words),
            endsLine: endsLine && i === run.length - 1,
          }),
        );
    } else read.push(first);
    at = end;
  }
  return read;
}

/** Blanks and signs, which have no direction of their own. */
function isNeutral({ words }: ShownLetters): boolean {
  return !/[\p{L}\p{N}]/u.test(words);
}

/** A letter that was turned round with its marks. */
function turnedBack(words: string): string {
  return words.replace(marksBefore, (_, all: string, letter: string) => letter + [...all].reverse().join(""));
}

const marksBefore = /^(\p{M}+)(\P{M})/u;
const turns = ({ isRightToLeft }: ShownLetters): boolean => isRightToLeft;

function isOnLineOf(one: ShownLetters, other: ShownLetters): boolean {
  return Math.abs(one.y - other.y) <= sameLine * Math.max(one.height, other.height);
}
