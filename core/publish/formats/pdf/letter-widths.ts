// Shares of the letters' size that they take in a bold face for headings, about; those of other faces are hardly wider.
const narrow = /[iljtfrI.,:;'’|!()[\]{}/\\-]/;
const wide = /[\p{Lu}\p{N}mw@%&–—\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}\p{sc=Hangul}]/u;
const widest = 0.72;
/** All letters of code are as wide, and its size is smaller. */
export const widthOfCode = 0.52;

/** How wide a sign is as it is set, in sizes of the text's letters: about, and rather too much than too little. */
export function widthOfSign(sign: string, isCode: boolean): number {
  if (isCode) return widthOfCode;
  if (narrow.test(sign)) return 0.36;
  return wide.test(sign) ? widest : 0.58;
}

/** How wide words are in one line. */
export function widthOfWords(words: string, isCode: boolean): number {
  let width = 0;
  for (const sign of words) width += widthOfSign(sign, isCode);
  return width;
}

/** How wide so many letters are at most. */
export const mostWidthOf = (letters: number): number => letters * widest;
