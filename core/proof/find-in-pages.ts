/** A place in set pages. */
export interface PlaceInPages {
  /** From 0. */
  page: number;
  /** Which piece of the page's text, from 0. */
  piece: number;
}

/**
 * Finds where in set pages a place of their text stands, by the letters around it: hyphens at line ends,
 * ligatures and what stands between the lines do not matter.
 * @param pages the pieces of text on each page, in the order in which they are read
 * @param before the text before the place, in its paragraph
 * @param after the text after it, in its paragraph
 * @param share how far into the whole text the place is, from 0 to 1: of equal passages, the nearest to it counts
 * @returns null where the pages have no such passage, as when the text has changed since they were set
 */
export function findInPages(
  pages: readonly (readonly string[])[],
  before: string,
  after: string,
  share: number,
): PlaceInPages | null {
  const pieces: { page: number; piece: number; start: number }[] = [];
  let letters = "";
  pages.forEach((texts, page) =>
    texts.forEach((text, piece) => {
      pieces.push({ page, piece, start: letters.length });
      letters += lettersOf(text);
    }),
  );
  const [left, right] = [lettersOf(before), lettersOf(after)];
  for (const most of reaches) {
    const head = left.slice(Math.max(0, left.length - most));
    const wanted = head + right.slice(0, most);
    if (wanted === "") return null;
    const found = nearest(letters, wanted, share * letters.length);
    if (found === -1) continue;
    // At the end of a line the place is after its last letter, not before the next line's first.
    const at = found + Math.max(0, head.length - 1);
    const { page, piece } = pieces.findLast(({ start }) => start <= at)!;
    return { page, piece };
  }
  return null;
}

/** So many letters to each side are looked for; fewer, where what was just typed is not set yet. */
const reaches = [40, 16, 8];

function nearest(letters: string, wanted: string, to: number): number {
  let best = -1;
  for (let at = letters.indexOf(wanted); at !== -1; at = letters.indexOf(wanted, at + 1))
    if (best === -1 || Math.abs(at - to) < Math.abs(best - to)) best = at;
  return best;
}

function lettersOf(text: string): string {
  return text
    .normalize("NFKC")
    .replace(/[^\p{L}\p{N}]+/gu, "")
    .toLowerCase();
}
