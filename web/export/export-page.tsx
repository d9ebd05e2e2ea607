import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { answerOf, api, type ExportListing, type Job } from "../api/client";
import { isUnderWay, useJob } from "../api/use-job";
import { useBook } from "../book-page";
import { PageFrame } from "../frame/page-frame";
import { Button } from "../parts/button";
import { Problem, Waiting } from "../parts/notice";
import { Progress } from "../parts/progress";
import { fileSize, shownDate } from "../parts/wording";
import { PagesForm } from "./pages-form";
import { ProofVerdict } from "./proof-verdict";

/** Exports the book, and shows for every export whether all of its links are in the file. */
export function ExportPage() {
  const book = useBook();
  const queries = useQueryClient();
  const params = { path: { bookId: book.id } };
  const [accessible, setAccessible] = useState(true);
  const [addresses, setAddresses] = useState<"none" | "notes" | "list">("none");
  const [problem, setProblem] = useState<string | null>(null);
  const exports = useQuery({
    queryKey: ["exports", book.id],
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/exports", { params })),
  });
  const obstacles = useQuery({
    queryKey: ["obstacles", book.id, accessible],
    queryFn: () =>
      answerOf(
        api.GET("/api/books/{bookId}/exports/obstacles", { params: { ...params, query: { accessible } } }),
      ),
    staleTime: 0,
  });
  const jobs = useQuery({
    queryKey: ["export-job", book.id],
    queryFn: () => answerOf(api.GET("/api/books/{bookId}/exports/latest-job", { params })),
  });
  const job = useJob(jobs.data?.[0] ?? null, (next) => {
    if (!isUnderWay(next)) void queries.invalidateQueries({ queryKey: ["exports", book.id] });
  });
  const begin = async (format: "pdf" | "epub" | "web"): Promise<void> => {
    setProblem(null);
    try {
      const begun = await answerOf(
        api.POST("/api/books/{bookId}/exports", { params, body: { format, accessible, addresses } }),
      );
      queries.setQueryData(["export-job", book.id], [begun]);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const cancel = async (under: Job): Promise<void> => {
    try {
      await answerOf(api.DELETE("/api/jobs/{jobId}", { params: { path: { jobId: under.id } } }));
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const busy = isUnderWay(job);
  return (
    <PageFrame book={book}>
      <div className="h-full overflow-y-auto">
        <div className="mx-auto max-w-5xl px-6 py-8">
          <h1 className="font-serif text-3xl font-semibold">Export</h1>
          <div className="mt-5 grid border border-hairline bg-paper md:grid-cols-3">
            <section aria-label="PDF" className="p-6 md:border-r md:border-hairline">
              <h2 className="font-serif text-xl">PDF</h2>
              <p className="mt-1 text-sm text-faint">
                Pages with contents list, outline and page numbers, tagged for screen readers.
              </p>
              <label className="mt-3 flex items-start gap-2">
                <input
                  type="checkbox"
                  checked={accessible}
                  onChange={(event) => setAccessible(event.target.checked)}
                  className="mt-1 size-4 accent-blue"
                />
                <span>
                  Claim PDF/UA-1
                  <span className="block text-sm text-faint">
                    Every picture needs a text alternative then.
                  </span>
                </span>
              </label>
              <label className="mt-3 grid">
                <span>Web addresses, for print</span>
                <select
                  value={addresses}
                  onChange={(event) => setAddresses(event.target.value as typeof addresses)}
                  className="min-h-8 border border-hairline bg-paper px-1"
                >
                  <option value="none">stay behind their words</option>
                  <option value="notes">are written out in notes</option>
                  <option value="list">are listed at the end</option>
                </select>
              </label>
              <Button kind="main" className="mt-4" disabled={busy} onClick={() => void begin("pdf")}>
                Export PDF
              </Button>
            </section>
            <section
              aria-label="E-book"
              className="flex flex-col items-start border-t border-hairline p-6 md:border-t-0 md:border-r"
            >
              <h2 className="font-serif text-xl">E-book</h2>
              <p className="mt-1 text-sm text-faint">
                EPUB 3.3 with one file a chapter, navigation, linked notes, the companion files inside, and
                what it says about its accessibility.
              </p>
              <Button
                kind="main"
                className="mt-4 md:mt-auto"
                disabled={busy}
                onClick={() => void begin("epub")}
              >
                Export EPUB
              </Button>
            </section>
            <section
              aria-label="Web page"
              className="flex flex-col items-start border-t border-hairline p-6 md:border-t-0"
            >
              <h2 className="font-serif text-xl">Web page</h2>
              <p className="mt-1 text-sm text-faint">
                One page with everything but companion files inside it. It works from a disk, in the dark, and
                without script.
              </p>
              <Button
                kind="main"
                className="mt-4 md:mt-auto"
                disabled={busy}
                onClick={() => void begin("web")}
              >
                Export web page
              </Button>
            </section>
          </div>
          <PagesForm />
          <p className="mt-2 text-sm text-faint">
            Companion files that links lead to come along: inside the e-book, beside the PDF and the web page,
            which are in a folder (zip) then.
          </p>
          <div className="mt-4 flex flex-col gap-3">
            {problem && <Problem>{problem}</Problem>}
            {(obstacles.data ?? []).length > 0 && (
              <Problem>
                {`Before the book can go out:\n${obstacles.data!.map((obstacle) => `– ${obstacle.message}`).join("\n")}`}
              </Problem>
            )}
            {busy && (
              <div className="border border-hairline bg-paper p-4">
                <div className="mb-2 flex items-center justify-between gap-2">
                  <span role="status">{job.message || "Waiting for its turn"} …</span>
                  <Button onClick={() => void cancel(job)}>Cancel</Button>
                </div>
                <Progress label="Export" done={job.done} total={job.total} />
              </div>
            )}
            {job?.state === "failed" && <Problem>{`The last export was not made.\n${job.message}`}</Problem>}
            {job?.state === "cancelled" && <p role="status">The last export was cancelled.</p>}
          </div>
          <h2 className="mt-8 font-serif text-xl">Exported files</h2>
          {exports.isPending && <Waiting what="Looking for exports" />}
          {exports.error && <Problem>{exports.error.message}</Problem>}
          {exports.data?.length === 0 && (
            <p className="mt-3 border border-hairline bg-paper p-8 font-serif text-lg">
              Nothing has been exported yet. Each file will be read back here, and its links compared with the
              manuscript’s.
            </p>
          )}
          {exports.data && exports.data.length > 0 && (
            <ul className="mt-3 border border-hairline bg-paper">
              {exports.data.map((one) => (
                <ExportRow key={one.id} bookId={book.id} one={one} />
              ))}
            </ul>
          )}
        </div>
      </div>
    </PageFrame>
  );
}

function ExportRow({ bookId, one }: { bookId: string; one: ExportListing }) {
  const link = "underline decoration-edge underline-offset-4 hover:text-blue";
  return (
    <li
      className={`grid items-start gap-x-5 gap-y-1 border-b border-hairline px-5 py-3 last:border-b-0 md:grid-cols-[1fr_20rem_auto] ${one.complete ? "" : "border-l-4 border-l-red bg-red-wash"}`}
    >
      <div className="min-w-0">
        <p className="truncate" title={one.fileName}>
          {one.fileName}
        </p>
        <p className="text-sm text-faint">
          {shownDate(one.createdAt)}, {fileSize(one.size)}
          {one.format === "pdf" && !one.accessible && ", without the PDF/UA-1 claim"}
          {one.addresses === "notes" && ", addresses in notes"}
          {one.addresses === "list" && ", addresses listed at the end"}
        </p>
      </div>
      <ProofVerdict proof={one} />
      <div className="flex gap-4">
        {one.format !== "web" && (
          <Link to={`/books/${bookId}/read/${one.id}`} className={link}>
            Read
          </Link>
        )}
        <Link to={`/books/${bookId}/export/${one.id}`} className={link}>
          Link proof
        </Link>
        <a href={`/api/books/${bookId}/exports/${one.id}/file`} download={one.fileName} className={link}>
          Download
        </a>
      </div>
    </li>
  );
}
