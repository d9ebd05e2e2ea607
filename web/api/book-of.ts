import { queryOptions } from "@tanstack/react-query";
import { answerOf, api } from "./client";
import { keys } from "./keys";

/** How a book is asked for, without its chapters. */
export const bookOf = (bookId: string) =>
  queryOptions({
    queryKey: keys.book(bookId),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}", { params: { path: { bookId } } })),
  });
