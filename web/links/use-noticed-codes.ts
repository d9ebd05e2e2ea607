import { useQueries } from "@tanstack/react-query";
import { codesInNames, matchCodes } from "@vennet/core/manuscript/codes";
import { useMemo } from "react";
import { answerOf, api } from "../api/client";
import { keys } from "../api/keys";

/** What the book's own files are called among the sources. */
export const own = "companion";

/** Where files come from that codes may stand for, by what it is called in the choice of sources. */
export type NamesBySource = ReadonlyMap<string, readonly string[]>;

/** Codes that stand in the text without a link and that files of a source bear in their names. */
export interface NoticedCodes {
  source: string;
  examples: string[];
}

const mostTried = 6;

/** Looks for codes by the names of the files there are; null until some are found. */
export function useNoticedCodes(bookId: string, sources: NamesBySource): NoticedCodes | null {
  const tries = useMemo(
    (): NoticedCodes[] =>
      [...sources]
        .flatMap(([source, names]) =>
          codesInNames(names).map((codes) => ({ source, size: codes.length, examples: codes.slice(0, 2) })),
        )
        .sort((a, b) => b.size - a.size)
        .slice(0, mostTried)
        .map(({ source, examples }) => ({ source, examples })),
    [sources],
  );
  const looked = useQueries({
    queries: tries.map(({ examples }) => ({
      queryKey: keys.codes(bookId, examples),
      queryFn: () => searchCodes(bookId, examples),
      retry: false,
      staleTime: 0,
      gcTime: 0,
    })),
  });
  if (looked.some(({ isPending }) => isPending)) return null;
  // The source that has files for most of the codes; of equal ones the book's own.
  let best: { count: number; noticed: NoticedCodes } | null = null;
  tries.forEach((noticed, i) => {
    const codes = (looked[i]!.data?.chapters ?? [])
      .flatMap(({ mentions }) => mentions)
      .filter(({ link }) => link === null)
      .map(({ text }) => text);
    const files = (sources.get(noticed.source) ?? []).map((name) => ({ id: name, name }));
    const count = matchCodes(codes, files).filter(({ file }) => file !== null).length;
    const isBetter = count > (best?.count ?? 0) || (count === best?.count && noticed.source === own);
    if (count > 0 && isBetter) best = { count, noticed };
  });
  return (best as { noticed: NoticedCodes } | null)?.noticed ?? null;
}

/** Where codes like some examples stand in the text. */
export function searchCodes(bookId: string, examples: string[]) {
  return answerOf(
    api.POST("/api/books/{bookId}/links/search", {
      params: { path: { bookId } },
      body: { examples, wholeWords: true, matchCase: true },
    }),
  );
}
