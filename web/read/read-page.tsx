import { useQuery } from "@tanstack/react-query";
import { readHref } from "@vennet/core/destination/destination";
import { ChevronLeft, ChevronRight, Undo2 } from "lucide-react";
import { useCallback, useEffect, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { answerOf, api, type ExportListing } from "../api/client";
import { useBook } from "../book-page";
import { PageFrame } from "../frame/page-frame";
import { Button } from "../parts/button";
import { Problem, Waiting } from "../parts/notice";
import { shownDate } from "../parts/wording";
import { FollowPanel } from "../write/links/follow-panel";
import { landingOf, openPdf, type OpenPdf } from "./open-pdf";
import { PdfPage, type PageLink } from "./pdf-page";

/** Reads an exported PDF, the file itself, as its readers will: pages, outline, links. */
export function ReadPage() {
  const book = useBook();
  const { exportId } = useParams();
  const exports = useQuery({
    queryKey: ["exports", book.id],
    queryFn: () =>
      answerOf(api.GET("/api/books/{bookId}/exports", { params: { path: { bookId: book.id } } })),
  });
  const pdfs = (exports.data ?? []).filter(({ format }) => format === "pdf");
  const chosen = pdfs.find(({ id }) => id === exportId) ?? pdfs[0];
  return (
    <PageFrame book={book}>
      <h1 className="sr-only">Read</h1>
      {exports.isPending && <Waiting what="Looking for exports" />}
      {exports.error && <Problem>{exports.error.message}</Problem>}
      {exports.data && !chosen && (
        <p className="mx-auto mt-8 max-w-3xl border border-hairline bg-paper p-10 font-serif text-lg">
          There is no PDF to read yet.{" "}
          <Link to={`/books/${book.id}/export`} className="underline underline-offset-4">
            Export one
          </Link>
          , and read here the very file that goes out.
        </p>
      )}
      {chosen && <Opened key={chosen.id} bookId={book.id} one={chosen} />}
    </PageFrame>
  );
}

/** Downloads and opens the file. */
function Opened({ bookId, one }: { bookId: string; one: ExportListing }) {
  const [pdf, setPdf] = useState<OpenPdf | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    const leaving = new AbortController();
    let opened: OpenPdf | null = null;
    const open = async (): Promise<void> => {
      const answer = await fetch(`/api/books/${bookId}/exports/${one.id}/file`, { signal: leaving.signal });
      if (!answer.ok) throw new Error(`The server did not give the file (${answer.status}).`);
      opened = await openPdf(new Uint8Array(await answer.arrayBuffer()));
      if (leaving.signal.aborted) void opened.document.destroy();
      else setPdf(opened);
    };
    open().catch((error: unknown) => {
      if (!leaving.signal.aborted) setProblem((error as Error).message);
    });
    return () => {
      leaving.abort();
      void opened?.document.destroy();
    };
  }, [bookId, one.id]);
  if (problem) return <Problem>{problem}</Problem>;
  if (!pdf) return <Waiting what="Opening the file" />;
  return <Reader bookId={bookId} one={one} pdf={pdf} />;
}

interface Place {
  page: number;
  mark: number | null;
  scrolled: number;
}

const scales = [0.75, 1, 1.25, 1.5, 2];

function Reader({ bookId, one, pdf }: { bookId: string; one: ExportListing; pdf: OpenPdf }) {
  const [page, setPage] = useState(1);
  const [mark, setMark] = useState<number | null>(null);
  const [scale, setScale] = useState(1.25);
  const [outlined, setOutlined] = useState(true);
  const [asked, setAsked] = useState<PageLink | null>(null);
  const [told, setTold] = useState("");
  /** Where the reader came from, the last jump at the end. */
  const [trail, setTrail] = useState<Place[]>([]);
  const desk = useRef<HTMLDivElement>(null);
  const { numPages } = pdf.document;

  const turnTo = useCallback(
    (to: number): void => {
      setAsked(null);
      setMark(null);
      setPage(Math.min(Math.max(1, to), numPages));
      if (desk.current) desk.current.scrollTop = 0;
    },
    [numPages],
  );
  const jump = async (dest: unknown): Promise<void> => {
    const landing = await landingOf(pdf.document, dest);
    if (!landing) return setTold("This link leads nowhere in the file.");
    setTrail([...trail, { page, mark, scrolled: desk.current?.scrollTop ?? 0 }]);
    turnTo(landing.page);
    setMark(landing.y);
    setTold(`Page ${landing.page}.`);
  };
  const back = (): void => {
    const place = trail.at(-1);
    if (!place) return;
    setTrail(trail.slice(0, -1));
    turnTo(place.page);
    setMark(place.mark);
    setTold(`Back on page ${place.page}.`);
    requestAnimationFrame(() => {
      if (desk.current) desk.current.scrollTop = place.scrolled;
    });
  };
  const follow = (link: PageLink): void => {
    if (link.address === null) void jump(link.dest);
    else setAsked(link);
  };

  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if ((event.target as HTMLElement).closest("input, select, textarea") || event.altKey || event.ctrlKey)
        return;
      if (event.key === "ArrowRight" || event.key === "PageDown") turnTo(page + 1);
      else if (event.key === "ArrowLeft" || event.key === "PageUp") turnTo(page - 1);
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [page, turnTo]);

  return (
    <div className="flex h-full flex-col">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-hairline px-5 py-1">
        <span className="flex items-center gap-1">
          <Button
            kind="quiet"
            aria-label="Page before"
            disabled={page === 1}
            onClick={() => turnTo(page - 1)}
          >
            <ChevronLeft aria-hidden size={17} />
          </Button>
          <input
            aria-label="Page"
            type="number"
            min={1}
            max={numPages}
            value={page}
            onChange={(event) =>
              !Number.isNaN(event.target.valueAsNumber) && turnTo(event.target.valueAsNumber)
            }
            className="min-h-7 w-16 border border-hairline bg-paper px-1 text-right tabular-nums"
          />
          <span className="tabular-nums">of {numPages}</span>
          <Button
            kind="quiet"
            aria-label="Next page"
            disabled={page === numPages}
            onClick={() => turnTo(page + 1)}
          >
            <ChevronRight aria-hidden size={17} />
          </Button>
        </span>
        <label className="flex items-center gap-2">
          Zoom
          <select
            value={scale}
            onChange={(event) => setScale(Number(event.target.value))}
            className="min-h-7 border border-hairline bg-paper px-1"
          >
            {scales.map((one) => (
              <option key={one} value={one}>
                {one * 100} %
              </option>
            ))}
          </select>
        </label>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={outlined}
            onChange={(event) => setOutlined(event.target.checked)}
            className="size-4 accent-blue"
          />
          Outline the links
        </label>
        <Button disabled={trail.length === 0} onClick={back}>
          <Undo2 aria-hidden size={15} /> Back
        </Button>
        <span role="status" className="text-faint">
          {told}
        </span>
        <span className="ml-auto text-sm text-faint">
          {one.fileName}, {shownDate(one.createdAt)}
        </span>
      </div>
      <div className="grid min-h-0 grow md:grid-cols-[15rem_1fr_18rem]">
        <nav
          aria-label="Outline of the file"
          className="overflow-y-auto border-r border-hairline p-3 text-sm"
        >
          <ul>
            {pdf.outline.map(({ words, depth, dest }, i) => (
              <li key={i} style={{ paddingLeft: `${depth}rem` }}>
                <button
                  type="button"
                  onClick={() => void jump(dest)}
                  className="min-h-[24px] text-left underline-offset-4 hover:text-blue hover:underline"
                >
                  {words}
                </button>
              </li>
            ))}
          </ul>
        </nav>
        <div
          ref={desk}
          tabIndex={0}
          role="region"
          aria-label={`Page ${page} of the file`}
          className="overflow-auto p-5"
        >
          <PdfPage
            document={pdf.document}
            number={page}
            scale={scale}
            outlined={outlined}
            mark={mark}
            onFollow={follow}
          />
        </div>
        <aside aria-label="The link that was followed" className="border-l border-hairline p-4">
          {asked ? (
            <Asked bookId={bookId} link={asked} beside={pdf.beside} onDone={() => setAsked(null)} />
          ) : (
            <p className="text-faint">
              Press a link on the page. A jump goes there at once and marks the line; an address is shown here
              before anything is opened.
            </p>
          )}
        </aside>
      </div>
    </div>
  );
}

/** Tells the whole address before anything outside the file is opened, as readers' programs do. */
function Asked({
  bookId,
  link,
  beside,
  onDone,
}: {
  bookId: string;
  link: PageLink;
  beside: OpenPdf["beside"];
  onDone: () => void;
}) {
  const address = link.address!;
  const isOutside = /^[a-z][a-z0-9+.-]*:/i.test(address);
  const file = isOutside ? undefined : beside.get(decodeURIComponent(address));
  return (
    <div>
      {link.name !== address && <p className="font-serif">{link.name}</p>}
      <p className="mt-1 font-mono text-[0.9rem] [overflow-wrap:anywhere]">{address}</p>
      {isOutside ? (
        <FollowPanel
          bookId={bookId}
          destination={readHref(address, null)}
          onGoTo={() => undefined}
          onDone={onDone}
        />
      ) : (
        <div className="mt-2 border-t border-hairline pt-2">
          <p>{file ? "A file in the same folder." : "The folder has no such file."}</p>
          <div className="mt-1 flex items-center gap-3">
            {file && (
              <Button autoFocus kind="main" onClick={() => save(address, file)}>
                Save a copy
              </Button>
            )}
            <Button kind="quiet" onClick={onDone}>
              Stay here
            </Button>
          </div>
        </div>
      )}
    </div>
  );
}

function save(path: string, bytes: Uint8Array): void {
  const address = URL.createObjectURL(new Blob([bytes as BlobPart]));
  const link = document.createElement("a");
  link.href = address;
  link.download = path.split("/").at(-1)!;
  link.click();
  URL.revokeObjectURL(address);
}
