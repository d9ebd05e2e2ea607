/**
 * The letters, digits and signs of a text, without blanks, points and case: by what words that were set are compared. The
 * sign of a root is drawn where its formula is set, and is none of the formula's letters.
 */
export function lettersOf(text: string): string {
  return text
    .normalize("NFKC")
    .replace(/[^\p{L}\p{N}\p{S}]+|√/gu, "")
    .toLowerCase();
}
