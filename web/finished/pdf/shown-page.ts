import { lettersOf, type Letter } from "@vennet/core/finished/pdf/letters";
import type { Area } from "@vennet/core/finished/pdf/pdf-page";
import { drawnBoxes } from "@vennet/core/pdf/drawn-boxes";
import { OPS, type PageViewport, type PDFDocumentProxy } from "pdfjs-dist";
import { paint } from "../../read/painting";
import { useEffect, useRef, useState, type RefObject } from "react";

/** A page as it is painted: its letters, and the way between its points and the screen's. */
export interface ShownPage {
  number: number;
  viewport: PageViewport;
  letters: readonly Letter[];
  /** The boxes of pictures and shapes that are drawn on it. */
  drawn: readonly Area[];
}

/** A box on the screen, in CSS px from the page's upper left corner. */
export interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Paints a page at a scale. The one before stays until it is there. */
export function useShownPage(
  file: PDFDocumentProxy,
  number: number,
  scale: number,
): { canvas: RefObject<HTMLCanvasElement | null>; shown: ShownPage | null; problem: string | null } {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [shown, setShown] = useState<ShownPage | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let isLeft = false;
    let cancel = (): void => undefined;
    const show = async (): Promise<void> => {
      const page = await file.getPage(number);
      if (isLeft) return;
      const viewport = page.getViewport({ scale });
      const painting = paint(page, scale);
      cancel = painting.cancel;
      await painting.done;
      const target = canvas.current;
      if (isLeft || !target) return;
      painting.showOn(target);
      // The page with its links is seen before it is known what stands where on it.
      setShown({ number, viewport, letters: [], drawn: [] });
      const [content, operators] = await Promise.all([
        page.getTextContent({ includeMarkedContent: true }),
        page.getOperatorList(),
      ]);
      if (isLeft) return;
      const { pictures, shapes } = drawnBoxes(operators, OPS);
      setShown({ number, viewport, letters: lettersOf(content), drawn: [...pictures, ...shapes] });
    };
    setProblem(null);
    show().catch((error: unknown) => {
      if (!isLeft) setProblem((error as Error).message);
    });
    return () => {
      isLeft = true;
      cancel();
    };
  }, [file, number, scale]);
  return { canvas, shown, problem };
}

/** Where an area of a page lies on the screen. */
export function boxOf({ viewport }: ShownPage, area: Area): Box {
  const [x1, y1, x2, y2] = viewport.convertToViewportRectangle([...area]) as [number, number, number, number];
  return {
    left: Math.min(x1, x2),
    top: Math.min(y1, y2),
    width: Math.abs(x2 - x1),
    height: Math.abs(y2 - y1),
  };
}

/** A spot of the screen as a point of the page. */
export function pointAt({ viewport }: ShownPage, left: number, top: number): [x: number, y: number] {
  const [x, y] = viewport.convertToPdfPoint(left, top) as [number, number];
  return [x, y];
}

/** The area between two spots of the screen. */
export function areaBetween(
  shown: ShownPage,
  from: readonly [number, number],
  to: readonly [number, number],
): Area {
  const [a, b] = [pointAt(shown, ...from), pointAt(shown, ...to)];
  const tenth = (one: number): number => Math.round(one * 10) / 10;
  return [
    tenth(Math.min(a[0], b[0])),
    tenth(Math.min(a[1], b[1])),
    tenth(Math.max(a[0], b[0])),
    tenth(Math.max(a[1], b[1])),
  ];
}
