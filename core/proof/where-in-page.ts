/** Where a link stands in an exported page: by its id, or counted among the links of the page. */
export function whereInPage(file: string, id: string | null, count: number): string {
  return id === null ? `${file}, link ${count}` : `${file}#${id}`;
}
