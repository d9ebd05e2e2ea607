// Longer ones do not fit into a line of a small page, and nobody would hyphenate them.
const longSigns = /(?=\S*[^A-Za-z\s-])[!-~]{31,}/g;
const signPieces = /[^/.?&=_#%:;,-]{1,10}[/.?&=_#%:;,-]*|[/.?&=_#%:;,-]+/g;

// No word of any language is longer; it would run over the margin, and cost the square of its length.
const longWords = /[\p{L}\p{M}\p{N}]{61,}/gu;
const lettersTogether = 20;
const letters = new Intl.Segmenter("und", { granularity: "grapheme" });

/** Text in parts between which a line may end: addresses, other long signs and endless words would run over the margin. */
export function breakable(text: string): string[] {
  const here = "\0";
  return text
    .replace(longSigns, (signs) => signs.match(signPieces)!.join(here))
    .replace(longWords, (word) => (isSpaced(word) ? inPieces(word).join(here) : word))
    .split(here);
}

// Where words are written without blanks, the typesetter itself knows where a line may end.
export const unspacedScripts =
  "\\p{sc=Han}\\p{sc=Hiragana}\\p{sc=Katakana}\\p{sc=Thai}\\p{sc=Lao}\\p{sc=Khmer}\\p{sc=Myanmar}";
const unspaced = new RegExp(`[${unspacedScripts}]`, "u");
const isSpaced = (word: string): boolean => !unspaced.test(word);

function inPieces(word: string): string[] {
  const pieces: string[] = [];
  let count = 0;
  for (const { segment } of letters.segment(word)) {
    if (count++ % lettersTogether === 0) pieces.push("");
    pieces[pieces.length - 1] += segment;
  }
  return pieces;
}
