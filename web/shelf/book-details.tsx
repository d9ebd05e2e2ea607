import { useMutation } from "@tanstack/react-query";
import { answerOf, api, type ApiError, type Book } from "../api/client";
import { useStale } from "../api/stale";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { Problem } from "../parts/notice";
import { deleteBook } from "./delete-book";

/** What a book is called and in which language it is, and its deletion. */
export function BookDetails({ book, onClose }: { book: Book; onClose: () => void }) {
  const stale = useStale();
  const params = { path: { bookId: book.id } };
  const done = async (): Promise<void> => {
    await stale("settings");
    onClose();
  };
  const change = useMutation({
    mutationFn: (body: { title: string; author: string; language: string }) =>
      answerOf(api.PATCH("/api/books/{bookId}", { params, body })),
    onSuccess: done,
  });
  const remove = useMutation({ mutationFn: () => deleteBook(book, () => stale("books")) });
  const error = (change.error ?? remove.error) as ApiError | null;
  const problemOf = (field: string): string | null => (error?.field === field ? error.message : null);
  return (
    <form
      className="grid gap-4 border-t border-hairline px-6 py-5 md:grid-cols-[2fr_1fr_8rem]"
      onSubmit={(event) => {
        event.preventDefault();
        const data = new FormData(event.currentTarget);
        const text = (name: string): string => String(data.get(name)).trim();
        change.mutate({ title: text("title"), author: text("author"), language: text("language") });
      }}
    >
      <Field name="title" label="Title" defaultValue={book.title} problem={problemOf("title")} />
      <Field name="author" label="Author" defaultValue={book.author} problem={problemOf("author")} />
      <Field
        name="language"
        label="Language (en, de …)"
        defaultValue={book.language}
        problem={problemOf("language")}
      />
      <div className="flex flex-wrap items-center gap-3 md:col-span-3">
        <Button kind="main" type="submit" disabled={change.isPending}>
          Save
        </Button>
        <Button kind="quiet" onClick={onClose}>
          Cancel
        </Button>
        <span className="ml-auto" />
        <Button kind="grave" onClick={() => remove.mutate()} disabled={remove.isPending}>
          {remove.isPending ? "Deleting …" : "Delete the book"}
        </Button>
      </div>
      {error && !error.field && <Problem>{error.message}</Problem>}
    </form>
  );
}
