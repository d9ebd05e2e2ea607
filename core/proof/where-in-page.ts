/** Where a link stands in an exported page: by its id, or counted among the links of the page. */
export function whereInPage(file: string, id: string | null, count: number): string {
  return id === null ? `${file}, link ${count}` : `${file}#${id}`;
}

/** The file and the link that `whereInPage` tells; null where the words are others. */
export function readWhereInPage(
  where: string,
): { file: string; id: string | null; count: number | null } | null {
  const counted = /^(.*), link (\d+)$/s.exec(where);
  if (counted) return { file: counted[1]!, id: null, count: Number(counted[2]) };
  const at = where.lastIndexOf("#");
  return at === -1 ? null : { file: where.slice(0, at), id: where.slice(at + 1), count: null };
}
