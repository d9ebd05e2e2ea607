/** A place in set pages. */
export interface PlaceInPages {
  /** From 0. */
  page: number;
  /** Which piece of the page's text, from 0. */
  piece: number;
}

/** So many letters to each side are looked for; fewer, where what was just typed is not set yet. */
const reaches = [40, 16, 8];

/** Set pages, in which places of their text are found. Their letters are gathered once, for many places. */
export class SearchedPages {
  private readonly pieces: { page: number; piece: number; start: number }[] = [];
  private readonly letters: string;

  /** @param pages the pieces of text on each page, in the order in which they are read */
  constructor(pages: readonly (readonly string[])[]) {
    let letters = "";
    pages.forEach((texts, page) =>
      texts.forEach((text, piece) => {
        this.pieces.push({ page, piece, start: letters.length });
        letters += lettersOf(text);
      }),
    );
    this.letters = letters;
  }

  /**
   * Finds where a place of the text stands, by the letters around it: hyphens at line ends, ligatures and what
   * stands between the lines do not matter.
   * @param before the text before the place, in its paragraph
   * @param after the text after it, in its paragraph
   * @param share how far into the whole text the place is, from 0 to 1: of equal passages, the nearest to it counts
   * @returns null where the pages have no such passage, as when the text has changed since they were set
   */
  find(before: string, after: string, share: number): PlaceInPages | null {
    const [left, right] = [lettersOf(before), lettersOf(after)];
    for (const most of reaches) {
      const head = left.slice(Math.max(0, left.length - most));
      const wanted = head + right.slice(0, most);
      if (wanted === "") return null;
      const found = this.nearest(wanted, share * this.letters.length);
      if (found === -1) continue;
      // At the end of a line the place is after its last letter, not before the next line's first.
      const at = found + Math.max(0, head.length - 1);
      const { page, piece } = this.pieces.findLast(({ start }) => start <= at)!;
      return { page, piece };
    }
    return null;
  }

  private nearest(wanted: string, to: number): number {
    let best = -1;
    for (let at = this.letters.indexOf(wanted); at !== -1; at = this.letters.indexOf(wanted, at + 1))
      if (best === -1 || Math.abs(at - to) < Math.abs(best - to)) best = at;
    return best;
  }
}

function lettersOf(text: string): string {
  return text
    .normalize("NFKC")
    .replace(/[^\p{L}\p{N}]+/gu, "")
    .toLowerCase();
}
