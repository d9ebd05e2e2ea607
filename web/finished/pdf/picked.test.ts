import { describe, expect, test } from "@jest/globals";
import { lettersOf } from "@vennet/core/finished/pdf/letters";
import { areaPicked, drawnAt, findWords, wordsBetween } from "./picked.ts";

/** A line of a page as pdf.js tells of it, in letters that are all as wide. */
const line = (str: string, y: number, hasEOL = true) => ({
  str,
  dir: "ltr",
  transform: [10, 0, 0, 10, 100, y],
  width: str.length * 6,
  height: 10,
  fontName: "even",
  hasEOL,
});
const letters = lettersOf({
  items: [line("Huts stand on stilts, half-", 500), line("way to Aldry.", 488), line("• Goosewing", 476)],
  styles: { even: { fontFamily: "monospace" } },
});

describe("what is picked on a page", () => {
  test("a pull takes whole words in the order of the text, over the ends of lines, an area for each line", () => {
    const picked = wordsBetween(letters, [118, 503], [160, 490])!;
    expect(picked.words).toBe("Huts stand on stilts, half- way to Aldry.");
    expect(picked.areas).toHaveLength(2);
    // The other way round it is the same, and from the margin the nearest line counts.
    expect(wordsBetween(letters, [160, 490], [118, 503])).toEqual(picked);
    expect(wordsBetween(letters, [20, 478], [400, 478])!.words).toBe("Goosewing");
    expect(wordsBetween([], [0, 0], [1, 1])).toBeNull();
  });

  test("a drawn area is drawn tight around the words that it touches, or stays as it was drawn", () => {
    const drawn = [133, 495, 150, 512] as const;
    expect(areaPicked(letters, drawn, true)).toMatchObject({
      words: "stand",
      areas: [[130, 497.8, 160, 507.8]],
    });
    expect(areaPicked(letters, drawn, false).areas).toEqual([[...drawn]]);
    expect(areaPicked(letters, [0, 0, 20, 20], true)).toEqual({ areas: [[0, 0, 20, 20]], words: "" });
  });

  test("words are found whatever their case and wherever lines end, each time that they stand there", () => {
    expect(findWords(letters, "HALF-WAY")).toMatchObject([{ words: "half- way" }]);
    expect(findWords(letters, "on").map(({ words }) => words)).toEqual(["on"]);
    expect(findWords(letters, "   ")).toEqual([]);
  });

  test("a press takes the smallest picture or button there, and neither a line nor the ground of the page", () => {
    const page = [0, 0, 400, 600] as const;
    const drawn = [
      [0, 0, 400, 600],
      [90, 460, 300, 520],
      [95, 490, 200, 510],
      [95, 500, 300, 501],
    ] as const;
    expect(drawnAt({ letters, drawn }, page, 120, 500)).toMatchObject({ areas: [[95, 490, 200, 510]] });
    expect(drawnAt({ letters, drawn }, page, 250, 500)).toMatchObject({ areas: [[90, 460, 300, 520]] });
    expect(drawnAt({ letters, drawn }, page, 10, 10)).toBeNull();
  });
});
