import type { PDFDocumentProxy } from "pdfjs-dist";
import { useEffect, useRef } from "react";

const width = 88;

/** All pages in small; each is painted when it comes into view. */
export function PageThumbnails({
  document: pdf,
  current,
  onGoTo,
}: {
  document: PDFDocumentProxy;
  current: number;
  onGoTo: (page: number) => void;
}) {
  const numbers = Array.from({ length: pdf.numPages }, (_, i) => i + 1);
  return (
    <ol className="grid grid-cols-[repeat(auto-fill,minmax(5.5rem,1fr))] gap-2">
      {numbers.map((number) => (
        <li key={number}>
          <Thumbnail
            document={pdf}
            number={number}
            isCurrent={number === current}
            onGoTo={() => onGoTo(number)}
          />
        </li>
      ))}
    </ol>
  );
}

function Thumbnail({
  document: pdf,
  number,
  isCurrent,
  onGoTo,
}: {
  document: PDFDocumentProxy;
  number: number;
  isCurrent: boolean;
  onGoTo: () => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    const target = canvas.current!;
    let cancel = (): void => undefined;
    let isLeft = false;
    const paint = async (): Promise<void> => {
      const page = await pdf.getPage(number);
      if (isLeft) return;
      const sharp = window.devicePixelRatio || 1;
      const viewport = page.getViewport({ scale: (width * sharp) / page.getViewport({ scale: 1 }).width });
      target.width = Math.round(viewport.width);
      target.height = Math.round(viewport.height);
      const render = page.render({ canvas: target, viewport });
      cancel = () => render.cancel();
      await render.promise;
    };
    const seen = new IntersectionObserver((entries) => {
      if (!entries.some(({ isIntersecting }) => isIntersecting)) return;
      seen.disconnect();
      // A page that cannot be painted says so in large, where it is read.
      paint().catch(() => undefined);
    });
    seen.observe(target);
    return () => {
      isLeft = true;
      seen.disconnect();
      cancel();
    };
  }, [pdf, number]);
  useEffect(() => {
    if (isCurrent) button.current?.scrollIntoView({ block: "nearest" });
  }, [isCurrent]);
  return (
    <button
      ref={button}
      type="button"
      aria-label={`Page ${number}`}
      aria-current={isCurrent ? "page" : undefined}
      onClick={onGoTo}
      className="w-full border border-hairline p-1 text-center tabular-nums aria-[current]:border-blue aria-[current]:bg-blue-wash"
    >
      <canvas
        ref={canvas}
        aria-hidden
        style={{ width, aspectRatio: "1 / 1.42" }}
        className="mx-auto bg-white"
      />
      {number}
    </button>
  );
}
