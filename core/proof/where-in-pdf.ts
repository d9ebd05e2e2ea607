/** Where a link annotation stands: its page, and its rectangle in points from the page's lower left corner. */
export function whereOf(page: number, rect: readonly number[]): string {
  return `page ${page}, at ${rect.map((n) => Math.round(n)).join(" ")}`;
}
