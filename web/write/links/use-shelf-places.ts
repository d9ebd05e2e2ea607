import { skipToken, useQuery } from "@tanstack/react-query";
import type { ShelfPlace } from "@vennet/core/destination/read-typed";
import { answerOf, api } from "../../api/client";
import { keys } from "../../api/keys";
import { kindWords } from "../../destinations/known-place";
import { useSettled } from "./use-settled";

const shortest = 3;
const none: readonly ShelfPlace[] = [];

/** Other publications of the Shelf, and places of theirs, that are called as what was typed. */
export function useShelfPlaces(bookId: string, typed: string, isWanted: boolean): readonly ShelfPlace[] {
  const words = typed.trim();
  const settled = useSettled(words, isWanted && words.length >= shortest && !/^[a-z]+:/i.test(words));
  const found = useQuery({
    queryKey: keys.shelfPlaces(bookId, settled),
    queryFn:
      settled === ""
        ? skipToken
        : async () => {
            const places = await answerOf(
              api.GET("/api/books/{bookId}/shelf/places", {
                params: { path: { bookId }, query: { words: settled } },
              }),
            );
            return places.map(({ bookId: book, title, placeId, name, kind }): ShelfPlace => ({
              book,
              place: placeId,
              name: placeId === null ? title : name,
              detail:
                kind === null
                  ? "On your Shelf"
                  : `On your Shelf: ${kindWords[kind].toLowerCase()} in “${title}”`,
            }));
          },
    retry: false,
  });
  return settled === words ? (found.data ?? none) : none;
}
