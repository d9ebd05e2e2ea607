/** A letter of a script in which words have no blanks between them, as a part of a pattern with the flag `u`. */
export const unspacedLetter =
  "[\\p{Script=Han}\\p{Script=Hiragana}\\p{Script=Katakana}\\p{Script=Thai}\\p{Script=Lao}\\p{Script=Khmer}\\p{Script=Myanmar}ー]";
