import { useQuery } from "@tanstack/react-query";
import type { KnownAnswer, ShareAudience } from "@vennet/core/checks/finding";
import { textWidth } from "@vennet/core/manuscript/page-layout";
import { useMemo } from "react";
import { answerOf, api } from "../../api/client";
import { keys } from "../../api/keys";
import { useBook } from "../../book-page";
import { useFiles, usePlaces, useSharedFiles } from "../../destinations/known-destinations";
import { useSurroundingBook } from "../use-surrounding-book";
import type { CheckBasis } from "./check-worker";
import type { LinkStates } from "./use-link-states";

/** What the rules need to know of the book around the chapter; null until it is known. */
export function useCheckBasis(bookId: string, chapterId: string, states: LinkStates): CheckBasis | null {
  const files = useFiles(bookId).data;
  const places = usePlaces(bookId).data;
  const shared = useSharedFiles(bookId).data;
  const told = useSurroundings(bookId, chapterId);
  const book = useSurroundingBook();
  const { audience, layout } = useBook();
  return useMemo(() => {
    const chapter = book?.chapters.findIndex(({ id }) => id === chapterId) ?? -1;
    if (!files || !places || !told || !book || chapter === -1) return null;
    const { title, language, conventions, chapters, ledTo } = book;
    const deadEnds = new Map(told.deadEnds.map(({ id, links }) => [id, links]));
    const ofFiles = new Map(told.files.map(({ id, ...known }) => [id, known]));
    return {
      chapter,
      surroundings: {
        title,
        language,
        conventions,
        chapters,
        ledTo,
        files: new Map(
          files.map(({ id, name, mediaType, size }) => [
            id,
            {
              ...{ name, mediaType, size, places: ofFiles.get(id) },
              ...(deadEnds.has(id) ? { deadEnds: deadEnds.get(id)! } : {}),
            },
          ]),
        ),
        answers: answersOf(states),
        shares: new Map(
          (shared ?? []).map(({ address, audience: who, group }): [string, ShareAudience] => [
            address,
            who === "group" ? { kind: who, name: group! } : { kind: who },
          ]),
        ),
        audience,
        unwritten: new Set(places.flatMap(({ id, unwritten }) => (unwritten ? [id] : []))),
        pictureSizes: new Map(told.pictures.map(({ id, width, height }) => [id, { width, height }])),
        textWidth: textWidth(layout),
        wordsLead: new Map(told.words.map(({ words, ends }) => [words, new Set(ends)])),
        schemes: told.schemes,
      },
    };
  }, [files, places, shared, told, book, audience, layout, chapterId, states]);
}

/** What the server tells of the rest of the book, as of its last save. */
function useSurroundings(bookId: string, chapterId: string) {
  return useQuery({
    queryKey: keys.surroundings(bookId, chapterId),
    queryFn: () =>
      answerOf(
        api.GET("/api/books/{bookId}/chapters/{chapterId}/surroundings", {
          params: { path: { bookId, chapterId } },
        }),
      ),
  }).data;
}

function answersOf(states: LinkStates): Map<string, KnownAnswer> {
  return new Map(
    [...states].flatMap(([address, { state, ...rest }]): [string, KnownAnswer][] =>
      state === "unchecked" ? [] : [[address, { state, ...rest }]],
    ),
  );
}
