/** Where a link annotation stands: its page, and its rectangle in points from the page's lower left corner. */
export function whereOf(page: number, rect: readonly number[]): string {
  return `page ${page}, at ${rect.map((n) => Math.round(n)).join(" ")}`;
}

/** The page and rectangle that `whereOf` tells; null where the words are others. */
export function readWhere(where: string): { page: number; rect: [number, number, number, number] } | null {
  const found = /^page (\d+), at (-?\d+) (-?\d+) (-?\d+) (-?\d+)$/.exec(where);
  if (!found) return null;
  const [page, ...rect] = found.slice(1).map(Number) as [number, number, number, number, number];
  return { page, rect };
}
