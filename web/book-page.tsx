import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Outlet, useOutletContext, useParams } from "react-router";
import { answerOf, api, ApiError, type Book } from "./api/client";
import { keys } from "./api/keys";
import { PageFrame } from "./frame/page-frame";
import { Button } from "./parts/button";
import { Problem, Waiting } from "./parts/notice";

/** The book of the address, for all its stages. */
export function BookPage() {
  const { bookId } = useParams() as { bookId: string };
  const book = useQuery({
    queryKey: keys.book(bookId),
    queryFn: () => answerOf(api.GET("/api/books/{bookId}", { params: { path: { bookId } } })),
  });
  useEffect(() => {
    document.title = book.data ? `${book.data.title} – Vennet` : "Vennet";
  }, [book.data]);
  if (book.data) return <Outlet context={book.data} />;
  return (
    <PageFrame>
      {book.isPending ? (
        <Waiting what="Opening the book" />
      ) : (
        <div className="mx-auto max-w-xl p-8">
          <Problem action={<Button onClick={() => void book.refetch()}>Try again</Button>}>
            {book.error instanceof ApiError && book.error.status === 404
              ? "There is no such book on your Shelf."
              : book.error.message}
          </Problem>
        </div>
      )}
    </PageFrame>
  );
}

export function useBook(): Book {
  return useOutletContext<Book>();
}
