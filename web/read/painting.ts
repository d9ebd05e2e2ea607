import type { PDFPageProxy } from "pdfjs-dist";

/** A page that is being painted, beside what is shown, so that the page before stays until it is there. */
export interface Painting {
  done: Promise<void>;
  cancel: () => void;
  /** Puts what was painted onto the canvas that is shown. */
  showOn: (target: HTMLCanvasElement) => void;
}

/** Begins to paint a page at a scale, as sharp as the screen is. */
export function paint(page: PDFPageProxy, scale: number): Painting {
  const sharp = window.devicePixelRatio || 1;
  const viewport = page.getViewport({ scale: scale * sharp });
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(viewport.width);
  canvas.height = Math.round(viewport.height);
  const render = page.render({ canvas, viewport });
  return {
    done: render.promise,
    cancel: () => render.cancel(),
    showOn: (target) => {
      target.width = canvas.width;
      target.height = canvas.height;
      target.getContext("2d")!.drawImage(canvas, 0, 0);
    },
  };
}
