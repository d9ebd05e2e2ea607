import { getDocument, GlobalWorkerOptions, type PDFDocumentLoadingTask } from "pdfjs-dist";
import workerAddress from "pdfjs-dist/build/pdf.worker.min.mjs?url";

GlobalWorkerOptions.workerSrc = workerAddress;

/** Opens a PDF, with all that files of others leave to whoever shows them: fonts, maps of letters, decoders of pictures. */
export function openDocument(
  source: { data: Uint8Array } | { url: string },
  password: string | null = null,
): PDFDocumentLoadingTask {
  return getDocument({
    ...source,
    ...(password === null ? {} : { password }),
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
