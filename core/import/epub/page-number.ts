/** Whether the words of a page's beginning are its number alone, as “12”, “[xii]” or “p. 12” (common practice). */
export function isPageNumber(words: string): boolean {
  return /^[[({]?(\p{L}{1,8}\.?\s)?(\d{1,5}[a-z]?|[ivxlc]{1,8})[\])}]?$/iu.test(words.trim());
}
