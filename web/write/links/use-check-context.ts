import type { CheckContext } from "@vennet/core/checks/finding";
import type { BookIndex } from "@vennet/core/manuscript/book-index";
import { useMemo } from "react";
import { useBook } from "../../book-page";
import { useFiles, usePlaces } from "../../known-destinations";

/** What the rules need to know of the book around the chapter; null until it is known. */
export function useCheckContext(
  bookId: string,
  around: { index: BookIndex; chapter: number } | null,
): CheckContext | null {
  const files = useFiles(bookId).data;
  const places = usePlaces(bookId).data;
  const { language } = useBook();
  const { index, chapter } = around ?? {};
  return useMemo(
    () =>
      files && places && index && chapter !== undefined
        ? {
            fileNames: new Map(files.map(({ id, name }) => [id, name])),
            language,
            ledTo: new Set(places.flatMap(({ id, uses }) => (uses > 0 ? [id] : []))),
            unwritten: new Set(places.flatMap(({ id, unwritten }) => (unwritten ? [id] : []))),
            index,
            chapter,
          }
        : null,
    [files, places, index, chapter, language],
  );
}
