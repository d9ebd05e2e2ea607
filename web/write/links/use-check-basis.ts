import type { KnownAnswer, ShareAudience } from "@vennet/core/checks/finding";
import { useMemo } from "react";
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
  const book = useSurroundingBook();
  const { audience } = useBook();
  return useMemo(() => {
    if (!files || !places || !book) return null;
    const { title, language, conventions, chapters } = book;
    return {
      chapterId,
      book: { title, language, conventions, chapters },
      known: {
        files: new Map(files.map(({ id, name, mediaType, size }) => [id, { name, mediaType, size }])),
        answers: answersOf(states),
        shares: new Map(
          (shared ?? []).map(({ address, audience: who, group }): [string, ShareAudience] => [
            address,
            who === "group" ? { kind: who, name: group! } : { kind: who },
          ]),
        ),
        audience,
        ledTo: new Set(places.flatMap(({ id, uses }) => (uses > 0 ? [id] : []))),
        unwritten: new Set(places.flatMap(({ id, unwritten }) => (unwritten ? [id] : []))),
        // Only the check of the whole book knows these.
        pictureSizes: new Map(),
        textWidth: 0,
        wordsLead: new Map(),
      },
    };
  }, [files, places, shared, book, audience, chapterId, states]);
}

function answersOf(states: LinkStates): Map<string, KnownAnswer> {
  return new Map(
    [...states].flatMap(([address, { state, ...rest }]): [string, KnownAnswer][] =>
      state === "unchecked" ? [] : [[address, { state, ...rest }]],
    ),
  );
}
