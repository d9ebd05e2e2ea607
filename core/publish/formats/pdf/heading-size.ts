/** The size of a heading's letters in the template, in sizes of the text's. */
export function sizeOfHeading(level: number, isPart: boolean): number {
  if (level === 1) return 1.4 * (isPart ? 1.8 : 1.4);
  return level === 2 ? 1.2 : 1;
}
