import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { answerOf, api, type ApiError } from "../api/client";
import { useStale } from "../api/stale";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { Problem } from "../parts/notice";

/** Begins a book with nothing but a title. */
export function NewBook({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const stale = useStale();
  const create = useMutation({
    mutationFn: (title: string) => answerOf(api.POST("/api/books", { body: { title } })),
    onSuccess: (book) => {
      void stale("books");
      void navigate(`/books/${book.id}/write`);
    },
  });
  const error = create.error as ApiError | null;
  return (
    <form
      className="mt-4 flex flex-wrap items-end gap-3 border border-hairline bg-paper p-6"
      onSubmit={(event) => {
        event.preventDefault();
        create.mutate(String(new FormData(event.currentTarget).get("title")).trim());
      }}
    >
      <Field
        name="title"
        label="Title of the book"
        autoFocus
        className="min-w-60 grow"
        problem={error?.field === "title" ? error.message : null}
      />
      <Button kind="main" type="submit" disabled={create.isPending}>
        Begin
      </Button>
      <Button kind="quiet" onClick={onClose}>
        Cancel
      </Button>
      {error && error.field !== "title" && <Problem>{error.message}</Problem>}
    </form>
  );
}
