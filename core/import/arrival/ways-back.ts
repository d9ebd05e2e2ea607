import type { FileLink } from "./file-links.ts";

/** No note is longer, in letters. */
const longestNote = 6_000;

/**
 * The links that lead from notes to their signs, whatever their words are.
 * @param signs the links of the file that are signs of notes in the book
 */
export function waysBack(links: readonly FileLink[], signs: readonly FileLink[]): ReadonlySet<FileLink> {
  const signsAt = new Map<number, FileLink[]>();
  for (const sign of signs) signsAt.set(sign.at, [...(signsAt.get(sign.at) ?? []), sign]);
  const isIn = (note: number | null, at: number): boolean =>
    note !== null && at >= note && at - note < longestNote;
  return new Set(
    links.filter(({ at, to }) => to !== null && (signsAt.get(to) ?? []).some((sign) => isIn(sign.to, at))),
  );
}
