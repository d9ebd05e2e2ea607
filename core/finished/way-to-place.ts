import { percentDecoded } from "../destination/percent-decoded.ts";
import type { FilePlaces } from "../manuscript/file-places.ts";

/**
 * What an address has behind its `#` that leads to a place of a publication in a file of it: the destination or id of that
 * name, else its page, else the one place of the file that is called as it is.
 * @returns null where the file has no such place
 */
export function wayToPlace({ pages, places }: FilePlaces, id: string, text: string): string | null {
  const named = places.find(({ at }) => {
    const name = percentDecoded(at);
    return (
      name === `nameddest=${id}` || name === id || (name.startsWith("epubcfi(") && name.endsWith(`[${id}])`))
    );
  });
  if (named) return named.at;
  const page = Number(/^page-(\d+)$/.exec(id)?.[1] ?? 0);
  if (page >= 1 && page <= (pages ?? 0)) return `page=${page}`;
  const called = text === "" ? [] : places.filter(({ name }) => name === text);
  return called.length === 1 ? called[0]!.at : null;
}
