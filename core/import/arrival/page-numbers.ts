import { isSign, lettersOf, type FileLink } from "./file-links.ts";

/**
 * The links on the numbers of pages beside entries of lists of contents, which lead where these do.
 * @param entries the links of the file that are entries of lists in the book
 */
export function pageNumbers(links: readonly FileLink[], entries: readonly FileLink[]): ReadonlySet<FileLink> {
  const beside = new Set(
    entries.flatMap(({ to, at, words }) =>
      to === null ? [] : [`${to} ${at}`, `${to} ${at + lettersOf(words).length}`],
    ),
  );
  return new Set(links.filter((link) => isSign(link) && beside.has(`${link.to} ${link.at}`)));
}
