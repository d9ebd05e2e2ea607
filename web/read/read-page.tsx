import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { answerOf, api, type ExportListing, type ExportWithProof } from "../api/client";
import { useBook } from "../book-page";
import { PageFrame } from "../frame/page-frame";
import { Problem, Waiting } from "../parts/notice";
import { shownDate } from "../parts/wording";
import { FlowReader } from "./flow-reader";
import { openEpub } from "./open-epub";
import type { OpenFlow } from "./open-flow";
import { openPdf, type OpenPdf } from "./open-pdf";
import { openWeb } from "./open-web";
import { PdfReader } from "./pdf-reader";
import { useOpenedFile } from "./use-opened-file";

const readableFormats = ["pdf", "epub", "web"];

/** Reads an exported file, the file itself, as its readers will: pages of a PDF, screens of an e-book or a web page. */
export function ReadPage() {
  const book = useBook();
  const navigate = useNavigate();
  const { exportId } = useParams();
  const exports = useQuery({
    queryKey: ["exports", book.id],
    queryFn: () =>
      answerOf(api.GET("/api/books/{bookId}/exports", { params: { path: { bookId: book.id } } })),
  });
  const readable = (exports.data ?? []).filter(({ format }) => readableFormats.includes(format));
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
      {exports.error && <Problem>{exports.error.message}</Problem>}
      {exports.data && !chosen && (
        <p className="mx-auto mt-8 max-w-3xl border border-hairline bg-paper p-10 font-serif text-lg">
          There is no PDF, e-book or web page to read yet.{" "}
          <Link to={`/books/${book.id}/export`} className="underline underline-offset-4">
            Export one
          </Link>
          , and read here the very file that goes out.
        </p>
      )}
      {chosen?.format === "pdf" && (
        <Opened<OpenPdf>
          key={chosen.id}
          bookId={book.id}
          one={chosen}
          open={openPdf}
          close={({ document }) => void document.destroy()}
        >
          {(pdf, proof) => <PdfReader bookId={book.id} pdf={pdf} proof={proof} />}
        </Opened>
      )}
      {chosen && chosen.format !== "pdf" && (
        <Opened<OpenFlow>
          key={chosen.id}
          bookId={book.id}
          one={chosen}
          open={chosen.format === "epub" ? openEpub : openWeb}
        >
          {(file, proof) => <FlowReader bookId={book.id} file={file} proof={proof} />}
        </Opened>
      )}
    </PageFrame>
  );
}

/** A file that is opened, with its proof. */
function Opened<T>({
  bookId,
  one,
  open,
  close,
  children,
}: {
  bookId: string;
  one: ExportListing;
  open: (bytes: Uint8Array) => Promise<T> | T;
  close?: (opened: T) => void;
  children: (opened: T, proof: ExportWithProof) => ReactNode;
}) {
  const { opened, problem } = useOpenedFile(bookId, one.id, open, close);
  const proof = useQuery({
    queryKey: ["export", one.id],
    queryFn: () =>
      answerOf(
        api.GET("/api/books/{bookId}/exports/{exportId}", {
          params: { path: { bookId, exportId: one.id } },
        }),
      ),
  });
  if (problem) return <Problem>{problem}</Problem>;
  if (proof.error) return <Problem>{proof.error.message}</Problem>;
  if (opened === null || !proof.data) return <Waiting what="Opening the file" />;
  return children(opened, proof.data);
}
