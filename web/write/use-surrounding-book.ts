import type { Place } from "@vennet/core/manuscript/outline";
import { useMemo } from "react";
import type { PlaceListing } from "../api/client";
import { useBook } from "../book-page";
import { usePlaces } from "../destinations/known-destinations";
import type { SurroundingBook } from "./text/book-numbers";

/** The book as the server last told it: its chapters' places, its conventions; null until it is known. */
export function useSurroundingBook(): SurroundingBook | null {
  const { id, title, language, conventions } = useBook();
  const places = usePlaces(id).data;
  return useMemo(
    () => (places ? surroundingBook(places, { title, language, conventions }) : null),
    [places, title, language, conventions],
  );
}

function surroundingBook(
  listed: readonly PlaceListing[],
  book: Pick<SurroundingBook, "title" | "language" | "conventions">,
): SurroundingBook {
  const chapters = new Map<string, { id: string; role: PlaceListing["role"]; places: Place[] }>();
  const pageOfPlace = new Map<string, string>();
  listed.forEach(({ chapterId, role, page, ...place }, position) => {
    let chapter = chapters.get(chapterId);
    if (!chapter) {
      chapter = { id: chapterId, role, places: [] };
      chapters.set(chapterId, chapter);
    }
    chapter.places.push({ ...place, position });
    if (page) pageOfPlace.set(place.id, page);
  });
  const ledTo = new Set(listed.flatMap(({ id, uses }) => (uses > 0 ? [id] : [])));
  return { ...book, chapters: [...chapters.values()], pageOfPlace, ledTo };
}
