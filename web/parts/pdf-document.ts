import { getDocument, GlobalWorkerOptions, PDFWorker, type PDFDocumentLoadingTask } from "pdfjs-dist";
import workerAddress from "pdfjs-dist/build/pdf.worker.min.mjs?url";

GlobalWorkerOptions.workerSrc = workerAddress;

let lasting: PDFWorker | null = null;

/** A worker that stays, for the files that Vennet has set itself: one that is begun for each takes longer than to read it. */
export function lastingWorker(): PDFWorker {
  return (lasting ??= new PDFWorker());
}

/** Opens a PDF, with all that files of others leave to whoever shows them: fonts, maps of letters, decoders of pictures. */
export function openDocument(
  source: { data: Uint8Array } | { url: string },
  password: string | null = null,
  worker: PDFWorker | null = null,
): PDFDocumentLoadingTask {
  return getDocument({
    ...source,
    ...(password === null ? {} : { password }),
    ...(worker ? { worker } : {}),
    isEvalSupported: false,
    // Fonts of the author's machine may be others of that name, or none.
    useSystemFonts: false,
    cMapUrl: "/pdfjs/cmaps/",
    cMapPacked: true,
    standardFontDataUrl: "/pdfjs/standard_fonts/",
    wasmUrl: "/pdfjs/wasm/",
    iccUrl: "/pdfjs/iccs/",
  });
}
