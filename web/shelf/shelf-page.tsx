import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { answerOf, api, type Book, type BookStates } from "../api/client";
import { keys } from "../api/keys";
import { PageFrame } from "../frame/page-frame";
import { Button } from "../parts/button";
import { Waiting } from "../parts/notice";
import { linkStates, StateMark } from "../parts/state-mark";
import { plural, shownDate } from "../parts/wording";
import { NearlyFull } from "../account/usage";
import { BookDetails } from "./book-details";
import { DeletedBooks } from "./deleted-books";
import { EmptyShelf } from "./empty-shelf";
import { BringIn } from "../import/bring-in";
import { DropTarget } from "../import/drop-target";
import type { DroppedFiles } from "../import/dropped-files";
import { BringFinished } from "../finished/bring-finished";
import { formatWords } from "../finished/formats";
import { ManyFiles } from "../finished/many-files";
import { NewBook } from "./new-book";
import { NotRead } from "../parts/not-read";

// Milliseconds.
const whileEmpty = 3_000;

/** The author's books. */
export function ShelfPage() {
  const [adding, setAdding] = useState<"new" | "file" | "finished" | "many" | null>(null);
  const books = useQuery({
    queryKey: keys.books,
    queryFn: () => answerOf(api.GET("/api/books")),
    // At the first start the demo is still being brought in when the page already shows.
    refetchInterval: ({ state }) => (state.data?.length === 0 ? whileEmpty : false),
  });
  // Every link is looked at for these, which takes a moment for long books.
  const states = useQuery({
    queryKey: keys.linkStates,
    queryFn: () => answerOf(api.GET("/api/books/states")),
    enabled: books.data !== undefined && books.data.length > 0,
  });
  const [dropped, setDropped] = useState<DroppedFiles | null>(null);
  const close = (): void => {
    setAdding(null);
    setDropped(null);
  };
  useEffect(() => {
    document.title = "Shelf – Vennet";
  }, []);
  const finished = (books.data ?? []).filter((book) => book.finished !== null);
  const empty = books.data?.length === 0;
  const queries = useQueryClient();
  const openDemo = async (): Promise<void> => {
    await answerOf(api.POST("/api/session/demo"));
    await queries.resetQueries();
  };
  return (
    <PageFrame>
      <DropTarget
        onDrop={(files) => {
          setDropped(files);
          setAdding(finishedOf(files) ? "finished" : "file");
        }}
      >
        <div className="h-full overflow-y-auto">
          <div className="mx-auto max-w-5xl px-6 py-8">
            <div className="flex flex-wrap items-baseline gap-3">
              <h1 className="mr-auto font-serif text-3xl font-semibold">Shelf</h1>
              <Button
                aria-expanded={adding === "file"}
                onClick={() => setAdding(adding === "file" ? null : "file")}
              >
                Bring in a manuscript
              </Button>
              <Button
                aria-expanded={adding === "finished"}
                onClick={() => setAdding(adding === "finished" ? null : "finished")}
              >
                Bring in a finished file
              </Button>
              <Button
                aria-expanded={adding === "new"}
                onClick={() => setAdding(adding === "new" ? null : "new")}
              >
                Begin a new book
              </Button>
            </div>
            <NearlyFull />
            {adding === "new" && <NewBook onClose={() => setAdding(null)} />}
            {adding === "file" && <BringIn dropped={dropped} onClose={close} />}
            {adding === "finished" && (
              <BringFinished dropped={dropped && finishedOf(dropped)} onClose={close} />
            )}
            {adding === "many" && <ManyFiles files={finished} onClose={close} />}
            <div className="mt-6">
              {finished.length > 1 && adding !== "many" && (
                <Button kind="quiet" className="mb-2 -ml-1" onClick={() => setAdding("many")}>
                  All {finished.length} finished files at once
                </Button>
              )}
              {books.isPending && <Waiting what="Looking at the Shelf" />}
              <NotRead of={books} />
              <NotRead of={states} />
              {empty && adding === null && (
                <EmptyShelf
                  onBringIn={() => setAdding("file")}
                  onBegin={() => setAdding("new")}
                  onDemo={() => void openDemo()}
                />
              )}
              {books.data && !empty && (
                <ul className="border border-hairline bg-paper">
                  {books.data.map((book) => (
                    <ShelfRow
                      key={book.id}
                      book={book}
                      webLinks={states.data?.find(({ bookId }) => bookId === book.id)?.webLinks}
                    />
                  ))}
                </ul>
              )}
              {books.data && <DeletedBooks />}
            </div>
          </div>
        </div>
      </DropTarget>
    </PageFrame>
  );
}

/** The PDFs of a drop, where it is of PDFs; null for any other. */
function finishedOf({ manuscript, files }: DroppedFiles): File[] | null {
  const all = [...manuscript, ...files];
  return all.length > 0 && all.every(({ name }) => /\.pdf$/i.test(name)) ? all : null;
}

function ShelfRow({ book, webLinks }: { book: Book; webLinks: BookStates["webLinks"] | undefined }) {
  const [open, setOpen] = useState(false);
  const states = linkStates.flatMap((state) =>
    webLinks?.[state] ? [{ state, count: webLinks[state] }] : [],
  );
  return (
    <li className="border-b border-hairline last:border-b-0">
      <div className="grid gap-x-8 gap-y-2 px-6 py-5 md:grid-cols-[1fr_16rem]">
        <div className="min-w-0">
          <Link
            to={`/books/${book.id}/write`}
            className="font-serif text-xl leading-snug font-semibold underline-offset-4 [overflow-wrap:anywhere] hover:text-blue hover:underline"
          >
            {book.title}
          </Link>
          <p className="mt-1 [overflow-wrap:anywhere]">{book.author}</p>
          <p className="mt-2 text-sm text-faint">
            {book.finished
              ? `${formatWords[book.finished.format].name}, ${plural(book.finished.pages, "page")}`
              : `${plural(book.chapters, "chapter")}, ${plural(book.words, "word")}`}
            . Last changed {shownDate(book.modifiedAt)}.
          </p>
          {book.links > 0 && !book.finished && (
            <Link
              to={`/books/${book.id}/write?guide=first-link`}
              className="mt-1 mr-4 inline-flex min-h-7 items-center text-sm underline decoration-edge underline-offset-4 hover:text-blue"
            >
              Make a link, step by step
            </Link>
          )}
          <Button
            kind="quiet"
            className="mt-1 -ml-1 text-sm"
            aria-expanded={open}
            onClick={() => setOpen(!open)}
          >
            Title, author, language
          </Button>
        </div>
        <div className="text-sm md:border-l md:border-hairline md:pl-6">
          <p className="font-semibold">{plural(book.links, "link")}</p>
          {states.length > 0 && (
            <ul className="mt-1 flex flex-col gap-0.5">
              {states.map(({ state, count }) => (
                <li key={state}>
                  <StateMark state={state} count={count} />
                </li>
              ))}
            </ul>
          )}
        </div>
      </div>
      {open && <BookDetails book={book} onClose={() => setOpen(false)} />}
    </li>
  );
}
