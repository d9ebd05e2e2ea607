import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { Outlet, useMatch, useOutletContext, useParams } from "react-router";
import { bookOf } from "./api/book-of";
import { chaptersOf } from "./api/chapters-of";
import { ApiError, type Book } from "./api/client";
import { PageFrame } from "./frame/page-frame";
import { Waiting } from "./parts/notice";
import { NotRead } from "./parts/not-read";

/** The book of the address, for all its stages. */
export function BookPage() {
  const { bookId } = useParams() as { bookId: string };
  const book = useQuery(bookOf(bookId));
  useChaptersAsked(bookId);
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
          <NotRead
            of={book}
            says={(error) =>
              error instanceof ApiError && error.status === 404
                ? "There is no such book on your Shelf."
                : error.message
            }
          />
        </div>
      )}
    </PageFrame>
  );
}

/** Asks for the chapters at the same time as for the book, where it is going to be written. */
function useChaptersAsked(bookId: string): void {
  const queries = useQueryClient();
  const isWritten = useMatch("/books/:bookId/write/*") !== null;
  useEffect(() => {
    if (isWritten) void queries.prefetchQuery(chaptersOf(bookId));
  }, [queries, isWritten, bookId]);
}

export function useBook(): Book {
  return useOutletContext<Book>();
}
