import { useQuery } from "@tanstack/react-query";
import { useNavigate, useParams } from "react-router";
import { answerOf, api, type ExportListing } from "../api/client";
import { keys } from "../api/keys";
import { useBook } from "../book-page";
import { formats } from "../export/formats/formats";
import { PageFrame } from "../frame/page-frame";
import { EmptyPage } from "../parts/empty-page";
import { Waiting } from "../parts/notice";
import { shownDate } from "../parts/wording";
import { NotRead } from "../parts/not-read";

/** Reads an exported file, the file itself, as its readers will: pages of a PDF, screens of an e-book or a web page. */
export function ReadPage() {
  const book = useBook();
  const navigate = useNavigate();
  const { exportId } = useParams();
  const exports = useQuery({
    queryKey: keys.exports(book.id),
    queryFn: () =>
      answerOf(api.GET("/api/books/{bookId}/exports", { params: { path: { bookId: book.id } } })),
  });
  const readable = (exports.data ?? []).filter(({ format }) => formats[format].Reader !== undefined);
  const chosen = readable.find(({ id }) => id === exportId) ?? readable[0];
  return (
    <PageFrame
      book={book}
      aside={
        chosen && (
          <select
            aria-label="File to read"
            value={chosen.id}
            onChange={(event) => void navigate(`/books/${book.id}/read/${event.target.value}`)}
            className="min-h-7 max-w-72 border border-hairline bg-paper px-1 text-sm"
          >
            {readable.map(({ id, fileName, createdAt }) => (
              <option key={id} value={id}>
                {fileName}, {shownDate(createdAt)}
              </option>
            ))}
          </select>
        )
      }
    >
      <h1 className="sr-only">Read</h1>
      {exports.isPending && <Waiting what="Looking for exports" />}
      <NotRead of={exports} />
      {exports.data && !chosen && (
        <EmptyPage next={book.finished ? "Save one" : "Export one"} to={`/books/${book.id}/export`}>
          Here you read the very file that goes out, as readers will, and follow its links one by one.{" "}
          {book.finished
            ? "No version of this file was saved yet."
            : "There is no PDF, e-book or web page of the book yet."}
        </EmptyPage>
      )}
      {chosen && <ReadExport key={chosen.id} bookId={book.id} one={chosen} />}
    </PageFrame>
  );
}

function ReadExport({ bookId, one }: { bookId: string; one: ExportListing }) {
  const { Reader } = formats[one.format];
  const proof = useQuery({
    queryKey: keys.export(bookId, one.id),
    queryFn: () =>
      answerOf(
        api.GET("/api/books/{bookId}/exports/{exportId}", {
          params: { path: { bookId, exportId: one.id } },
        }),
      ),
  });
  if (!proof.data && proof.error) return <NotRead of={proof} />;
  if (!proof.data || !Reader) return <Waiting what="Opening the file" />;
  return <Reader bookId={bookId} proof={proof.data} />;
}
