import { useMutation } from "@tanstack/react-query";
import { defaultConventions, type Conventions } from "@vennet/core/manuscript/conventions";
import { useState, type ReactNode } from "react";
import { answerOf, api } from "../api/client";
import { useStale } from "../api/stale";
import { useBook } from "../book-page";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { Problem } from "../parts/notice";
import { LinksFrame } from "./links-frame";

const levels = [
  "no heading",
  "chapters alone: 3",
  "to headings 1: 3.1",
  "to headings 2: 3.1.4",
  "to headings 3",
  "all headings",
];
const counts: [string, string][] = [
  ["book", "through the book: 7"],
  ["chapter", "within each chapter: 3.2"],
  ["none", "not at all"],
];

/** What the book counts, and where its notes stand. Everything that follows a number follows at once. */
export function NumbersPage() {
  const book = useBook();
  const stale = useStale();
  const [now, setNow] = useState<Conventions>(book.conventions);
  const save = useMutation({
    mutationFn: () =>
      answerOf(
        api.PATCH("/api/books/{bookId}", {
          params: { path: { bookId: book.id } },
          body: { conventions: now },
        }),
      ),
    onSuccess: () => stale("settings"),
  });
  const isChanged = JSON.stringify(now) !== JSON.stringify(book.conventions);
  const set = (to: Partial<Conventions>): void => setNow({ ...now, ...to });
  const counted = (value: string): Conventions["figures"] =>
    value === "book" || value === "chapter" ? value : null;
  return (
    <LinksFrame>
      <div className="h-full overflow-y-auto p-5">
        <div className="mx-auto max-w-3xl">
          <h1 className="font-serif text-2xl">Numbers and notes</h1>
          <p className="text-faint">
            For the whole book. Cross-references, signpost lists and notes follow at once, wherever they are.
          </p>
          <div className="mt-4 border border-hairline bg-paper">
            <Row label="Headings are numbered">
              {(id) => (
                <select
                  id={id}
                  value={now.headings}
                  onChange={(event) => set({ headings: Number(event.target.value) })}
                  className={select}
                >
                  {levels.map((words, level) => (
                    <option key={level} value={level}>
                      {words}
                    </option>
                  ))}
                </select>
              )}
            </Row>
            <Row label="Figures are counted">
              {(id) => (
                <Counted id={id} value={now.figures} onChange={(value) => set({ figures: counted(value) })} />
              )}
            </Row>
            <Row label="Tables are counted">
              {(id) => (
                <Counted id={id} value={now.tables} onChange={(value) => set({ tables: counted(value) })} />
              )}
            </Row>
            <Row label="Notes are counted">
              {(id) => (
                <select
                  id={id}
                  value={now.notes}
                  onChange={(event) => set({ notes: event.target.value as Conventions["notes"] })}
                  className={select}
                >
                  <option value="chapter">anew in each chapter</option>
                  <option value="book">through the book</option>
                </select>
              )}
            </Row>
            <Row label="Notes stand at the end of">
              {(id) => (
                <select
                  id={id}
                  value={now.notesAt}
                  onChange={(event) => set({ notesAt: event.target.value as Conventions["notesAt"] })}
                  className={select}
                >
                  <option value="page">the page; without pages, of the chapter</option>
                  <option value="chapter">the chapter</option>
                  <option value="book">the book</option>
                </select>
              )}
            </Row>
            <div className="px-4 py-3">
              <Field
                className="max-w-md"
                label="Words of the way back from a note"
                hint="An arrow is called “Back to the text” for those who listen."
                value={now.returnWords}
                maxLength={60}
                onChange={(event) => set({ returnWords: event.target.value })}
              />
            </div>
          </div>
          {save.error && <Problem>{save.error.message}</Problem>}
          <div className="mt-4 flex flex-wrap items-center gap-4">
            <Button kind="main" disabled={!isChanged || save.isPending} onClick={() => save.mutate()}>
              {save.isPending ? "Saving …" : "Save"}
            </Button>
            <Button kind="quiet" disabled={!isChanged} onClick={() => setNow(book.conventions)}>
              Cancel
            </Button>
            <Button kind="quiet" onClick={() => setNow(defaultConventions)}>
              Default
            </Button>
            {save.isSuccess && !isChanged && <span role="status">Saved: the book counts so now.</span>}
          </div>
        </div>
      </div>
    </LinksFrame>
  );
}

const select = "min-h-8 border border-hairline bg-paper px-1";

function Row({ label, children }: { label: string; children: (id: string) => ReactNode }) {
  const id = `numbers-${label.replace(/\W+/g, "-").toLowerCase()}`;
  return (
    <div className="grid items-center gap-2 border-b border-hairline px-4 py-2.5 sm:grid-cols-[16rem_1fr]">
      <label htmlFor={id}>{label}</label>
      {children(id)}
    </div>
  );
}

function Counted({
  id,
  value,
  onChange,
}: {
  id: string;
  value: string | null;
  onChange: (value: string) => void;
}) {
  return (
    <select
      id={id}
      value={value ?? "none"}
      onChange={(event) => onChange(event.target.value)}
      className={select}
    >
      {counts.map(([count, words]) => (
        <option key={count} value={count}>
          {words}
        </option>
      ))}
    </select>
  );
}
