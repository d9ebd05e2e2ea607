import { ChevronLeft, ChevronRight, Undo2 } from "lucide-react";
import { useCallback, useEffect, useRef, useState } from "react";
import { Button } from "../parts/button";
import { AskedLink, type OutwardLink } from "./asked-link";
import { landingOf, type OpenPdf } from "./open-pdf";
import { PdfPage, type PageLink } from "./pdf-page";

interface Place {
  page: number;
  mark: number | null;
  scrolled: number;
}

const scales = [0.75, 1, 1.25, 1.5, 2];

/** The pages of an exported PDF, with its outline and links. */
export function PdfReader({ bookId, pdf }: { bookId: string; pdf: OpenPdf }) {
  const [page, setPage] = useState(1);
  const [mark, setMark] = useState<number | null>(null);
  const [scale, setScale] = useState(1.25);
  const [outlined, setOutlined] = useState(true);
  const [asked, setAsked] = useState<OutwardLink | null>(null);
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
    else setAsked({ name: link.name, address: link.address });
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
            <AskedLink bookId={bookId} link={asked} beside={pdf.beside} onDone={() => setAsked(null)} />
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
