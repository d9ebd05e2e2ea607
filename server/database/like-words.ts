/** What `LIKE` finds where words stand anywhere in a text, whatever signs they have. */
export function likeWords(words: string): string {
  return `%${words.replace(/[\\%_]/g, "\\$&")}%`;
}
