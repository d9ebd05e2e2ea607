import { queryOptions } from "@tanstack/react-query";
import { answerOf, api } from "./client";
import { keys } from "./keys";

/** How the chapters of a book are asked for, without their texts. */
export const chaptersOf = (bookId: string) =>
  queryOptions({
    queryKey: keys.chapters(bookId),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/chapters", { params: { path: { bookId } } })),
  });
