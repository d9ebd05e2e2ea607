import { whereOf } from "@vennet/core/proof/where-in-pdf";
import type { PDFDocumentProxy, PDFPageProxy } from "pdfjs-dist";
import { useEffect, useRef, useState } from "react";
import { Problem } from "../parts/notice";
import { paint } from "./painting";

/** A link of a page as the file has it. */
export interface PageLink {
  id: string;
  /** What a screen reader is told of it. */
  name: string;
  /** An address, or a path beside the file; null for a jump. */
  address: string | null;
  dest: unknown;
  /** Its rectangle in points from the page's lower left corner. */
  rect: readonly number[];
  /** Its boxes on the page in CSS px: one for each line that it runs over. */
  boxes: Box[];
}

interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}

interface Annotation {
  id: string;
  subtype: string;
  rect: number[];
  quadPoints?: Float32Array | null;
  unsafeUrl?: string;
  url?: string;
  dest?: unknown;
  contentsObj?: { str: string };
}

/** A page that is painted. */
export interface ShownPage {
  canvas: HTMLCanvasElement;
  /** In points. */
  height: number;
}

interface Shown {
  links: PageLink[];
  text: string;
  width: number;
  height: number;
}

/** One page of the exported PDF as readers see it, with its links laid over it. */
export function PdfPage({
  document: pdf,
  number,
  scale,
  outlined,
  mark,
  chosen,
  onFollow,
  onShown,
  onGone,
}: {
  document: PDFDocumentProxy;
  number: number;
  scale: number;
  /** Whether links are outlined for the author. */
  outlined: boolean;
  /** Where the last jump landed, in points from the page's foot. */
  mark: number | null;
  /** The link that is marked, by where it stands. */
  chosen?: string;
  onFollow: (link: PageLink) => void;
  /** Tells that the page is painted. */
  onShown?: (number: number, page: ShownPage) => void;
  /** Tells that the page that was painted is so no more. */
  onGone?: () => void;
}) {
  const told = useRef({ onShown, onGone });
  told.current = { onShown, onGone };
  const canvas = useRef<HTMLCanvasElement>(null);
  const [shown, setShown] = useState<Shown | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let isLeft = false;
    let cancel = (): void => undefined;
    const show = async (): Promise<void> => {
      const page = await pdf.getPage(number);
      const viewport = page.getViewport({ scale });
      const target = canvas.current;
      if (isLeft || !target) return;
      const painting = paint(page, scale);
      cancel = painting.cancel;
      const [links, text] = await Promise.all([linksOf(page, scale), textOf(page), painting.done]);
      if (isLeft) return;
      painting.showOn(target);
      setShown({ links, text, width: viewport.width, height: viewport.height });
      told.current.onShown?.(number, { canvas: target, height: viewport.height / scale });
    };
    setProblem(null);
    show().catch((error: unknown) => {
      if (!isLeft) setProblem((error as Error).message);
    });
    return () => {
      isLeft = true;
      cancel();
      told.current.onGone?.();
    };
  }, [pdf, number, scale]);
  const at = shown && mark !== null ? shown.height - mark * scale : null;
  return (
    <div
      className="relative mx-auto border border-hairline bg-white shadow-sm"
      style={shown ? { width: shown.width, height: shown.height } : { width: 400, height: 560 }}
    >
      {problem && <Problem>{problem}</Problem>}
      <canvas ref={canvas} aria-hidden className="absolute inset-0 size-full" />
      {/* What is painted is told to those who do not see it. */}
      <p className="sr-only">{shown?.text}</p>
      {at !== null && (
        <div
          data-testid="landing"
          aria-hidden
          className="absolute -left-3 h-6 w-1.5 bg-blue"
          style={{ top: at }}
          ref={(mark) => {
            mark?.scrollIntoView({ block: "center" });
          }}
        />
      )}
      {shown?.links.map((link) =>
        link.boxes.map((box, i) => (
          <button
            key={`${link.id} ${i}`}
            type="button"
            aria-label={link.name}
            // A link over several lines is one to whoever goes from link to link.
            {...(i > 0 ? { tabIndex: -1, "aria-hidden": true } : {})}
            onClick={() => onFollow(link)}
            style={box}
            className={`absolute cursor-pointer ${
              whereOf(number, link.rect) === chosen
                ? "bg-[#1d4f8f]/15 outline-2 outline-[#1d4f8f]"
                : outlined
                  ? "outline-2 outline-[#1d4f8f] outline-dashed"
                  : ""
            }`}
          />
        )),
      )}
    </div>
  );
}

/** The links of a page, with their boxes at a scale. */
export async function linksOf(page: PDFPageProxy, scale: number): Promise<PageLink[]> {
  const viewport = page.getViewport({ scale });
  const annotations = (await page.getAnnotations()) as Annotation[];
  return annotations
    .filter(({ subtype }) => subtype === "Link")
    .map(({ id, rect, quadPoints, unsafeUrl, url, dest, contentsObj }) => {
      const address = unsafeUrl ?? url ?? null;
      const boxes = (quadPoints ? quads(quadPoints) : [rect]).map((corners): Box => {
        const [x1, y1, x2, y2] = viewport.convertToViewportRectangle(corners) as [
          number,
          number,
          number,
          number,
        ];
        return {
          left: Math.min(x1, x2),
          top: Math.min(y1, y2),
          width: Math.abs(x2 - x1),
          height: Math.abs(y2 - y1),
        };
      });
      return {
        id,
        name: contentsObj?.str || address || "A jump in the book",
        address,
        dest: dest ?? null,
        rect,
        boxes,
      };
    });
}

/** The boxes of a link's lines: eight numbers a line, the corners of a quadrilateral (ISO 32000, 12.5.6.5). */
function quads(points: Float32Array): number[][] {
  const boxes: number[][] = [];
  for (let i = 0; i + 8 <= points.length; i += 8) {
    const line = [...points.subarray(i, i + 8)];
    const xs = line.filter((_, at) => at % 2 === 0);
    const ys = line.filter((_, at) => at % 2 === 1);
    boxes.push([Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)]);
  }
  return boxes;
}

async function textOf(page: PDFPageProxy): Promise<string> {
  const { items } = await page.getTextContent();
  return items.map((item) => ("str" in item ? item.str + (item.hasEOL ? "\n" : "") : "")).join("");
}
