import { skipToken, useQuery } from "@tanstack/react-query";
import type { Spot } from "@vennet/core/destination/read-typed";
import { findMentions } from "@vennet/core/manuscript/mentions";
import type { Node } from "prosemirror-model";
import { useMemo } from "react";
import { answerOf, api } from "../../api/client";
import { keys } from "../../api/keys";
import { useSettled } from "./use-settled";

/** The chapter that is being written, in whose text words are looked for as it stands at this moment. */
export interface WrittenHere {
  chapterId: string;
  doc: Node;
  /** The words that are to be linked: they do not lead to themselves. */
  from: number;
  to: number;
}

const shortest = 3;
const mostFound = 12;
const anywhere = { wholeWords: false, matchCase: false };

/**
 * Where what was typed stands in the text of the whole book; first the chapter that is being written.
 * `searching` until the other chapters have been looked through.
 */
export function useSpots(
  bookId: string,
  typed: string,
  here: WrittenHere | null,
): { spots: readonly Spot[]; searching: boolean } {
  const phrase = typed.trim();
  const isWanted = here !== null && phrase.length >= shortest;
  const settled = useSettled(phrase, isWanted);
  const elsewhere = useQuery({
    queryKey: keys.spots(bookId, settled),
    queryFn:
      settled === ""
        ? skipToken
        : () =>
            answerOf(
              api.POST("/api/books/{bookId}/links/search", {
                params: { path: { bookId } },
                body: { phrase: settled, ...anywhere, limit: mostFound },
              }),
            ),
    retry: false,
    staleTime: 0,
    gcTime: 0,
  });
  const spots = useMemo((): Spot[] => {
    if (!isWanted) return [];
    const own = findMentions(here.doc, phrase, anywhere)
      .filter(({ from, to }) => to <= here.from || from >= here.to)
      .map((found) => ({ ...found, chapterId: here.chapterId, chapter: "This chapter", revision: null }));
    const others = settled === phrase ? (elsewhere.data?.chapters ?? []) : [];
    return [
      ...own.slice(0, mostFound / 2),
      ...others
        .filter(({ chapterId }) => chapterId !== here.chapterId)
        .flatMap(({ chapterId, chapter, revision, mentions }) =>
          mentions.map((found) => ({ ...found, chapterId, chapter, revision })),
        ),
    ];
  }, [isWanted, here, phrase, settled, elsewhere.data]);
  return { spots, searching: isWanted && (settled !== phrase || elsewhere.isFetching) };
}
