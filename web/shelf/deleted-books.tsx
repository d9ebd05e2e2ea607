import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answerOf, api, type ApiError, type DeletedBook } from "../api/client";
import { keys } from "../api/keys";
import { useStale } from "../api/stale";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { NotRead } from "../parts/not-read";
import { plural, shownDate, shownDay } from "../parts/wording";
import { bringBack, deleteForGood } from "./delete-book";

/** The books that were deleted, below those that are there. */
export function DeletedBooks() {
  const [open, setOpen] = useState(false);
  const deleted = useQuery({
    queryKey: keys.deletedBooks,
    queryFn: () => answerOf(api.GET("/api/books/deleted")),
  });
  const books = deleted.data ?? [];
  return (
    <>
      <NotRead of={deleted} />
      {books.length > 0 && (
        <section aria-label="Deleted books" className="mt-6">
          <Button kind="quiet" className="-ml-1" aria-expanded={open} onClick={() => setOpen(!open)}>
            {plural(books.length, "deleted book")}
          </Button>
          {open && (
            <ul className="mt-2 border border-hairline">
              {books.map((book) => (
                <DeletedRow key={book.id} book={book} />
              ))}
            </ul>
          )}
        </section>
      )}
    </>
  );
}

function DeletedRow({ book: { id, title, author, deletedAt, keptUntil } }: { book: DeletedBook }) {
  const stale = useStale();
  const [leaving, setLeaving] = useState(false);
  const onSuccess = (): Promise<void> => stale("books");
  const back = useMutation({ mutationFn: () => bringBack(id), onSuccess });
  const remove = useMutation({ mutationFn: () => deleteForGood(id), onSuccess });
  const error = (back.error ?? remove.error) as ApiError | null;
  const busy = back.isPending || remove.isPending;
  return (
    <li className="border-b border-hairline px-6 py-4 last:border-b-0">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <div className="min-w-0 flex-[1_1_20rem]">
          <p className="font-serif text-lg leading-snug [overflow-wrap:anywhere]">{title}</p>
          <p className="mt-1 text-sm text-faint [overflow-wrap:anywhere]">
            {author}. Deleted {shownDate(deletedAt)}; goes for good on {shownDay(keptUntil)}.
          </p>
        </div>
        {leaving ? (
          <>
            <span>Its text, pictures and exports go for good.</span>
            <Button kind="grave" disabled={busy} onClick={() => remove.mutate()}>
              {remove.isPending ? "Deleting …" : "Delete it"}
            </Button>
            <Button kind="quiet" onClick={() => setLeaving(false)}>
              Keep it
            </Button>
          </>
        ) : (
          <>
            <Button aria-label={`Bring back “${title}”`} disabled={busy} onClick={() => back.mutate()}>
              {back.isPending ? "Bringing back …" : "Bring back"}
            </Button>
            <Button
              kind="grave"
              aria-label={`Delete “${title}” for good`}
              disabled={busy}
              onClick={() => setLeaving(true)}
            >
              Delete for good
            </Button>
          </>
        )}
      </div>
      {error && <Problem>{error.message}</Problem>}
    </li>
  );
}
