/** Whether a text has signs of ASCII alone. */
export function isAscii(text: string): boolean {
  return !/[^\0-\x7f]/.test(text);
}

/**
 * The letters, digits and signs of a text, without blanks, points and case: by what words that were set are compared. The
 * sign of a root is drawn where its formula is set, and is none of the formula's letters.
 */
export function lettersOf(text: string): string {
  // What Unicode calls letters and signs takes long to look up, and most words need none of it.
  if (isAscii(text)) return text.replace(/[^A-Za-z0-9$+<=>^`|~]+/g, "").toLowerCase();
  return text
    .normalize("NFKC")
    .replace(/[^\p{L}\p{N}\p{S}]+|√/gu, "")
    .toLowerCase();
}
