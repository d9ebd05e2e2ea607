import type { PDFDocumentLoadingTask } from "pdfjs-dist/legacy/build/pdf.mjs";

// The build of pdf.js for this runtime puts methods of its own in place of some that the runtime has, for cases that
// never arise here; with them, all that follows in the process takes a third longer. So the runtime's are put back.
const { push } = Array.prototype;
const { parse, stringify } = JSON;

const pdfJs = await import("pdfjs-dist/legacy/build/pdf.mjs");
// Else it is loaded with the first document, and replaces them anew.
await import("pdfjs-dist/legacy/build/pdf.worker.mjs" as string);

Array.prototype.push = push;
Object.assign(JSON, { parse, stringify });

/** Where the package lies, by whose maps letters of files are read that name a map instead of bringing one (ISO 32000-1, 9.7.5.2). */
const folder = (import.meta as { resolve?: (name: string) => string }).resolve?.("pdfjs-dist/package.json");
const cMapUrl = folder && decodeURI(new URL("cmaps/", folder).pathname);

/** pdf.js, as Mozilla's own reader of PDF has it. */
export const { OPS, VerbosityLevel } = pdfJs;

/** Opens a PDF to be read: it runs nothing of the file, and takes no fonts of the machine for the file's own. */
export function openPdf(bytes: Uint8Array, password = ""): PDFDocumentLoadingTask {
  return getDocument({
    password,
    // pdf.js takes the buffer for itself, so it gets a copy.
    data: new Uint8Array(bytes),
    verbosity: VerbosityLevel.ERRORS,
    isEvalSupported: false,
    useSystemFonts: false,
  });
}

/** Opens a PDF as pdf.js does. */
export const getDocument: typeof pdfJs.getDocument = (source) =>
  pdfJs.getDocument({ ...(cMapUrl ? { cMapUrl, cMapPacked: true } : {}), ...(source as object) });

/** Whether something was thrown by pdf.js at what a file holds; its classes are not given to others. */
export function isOfPdfJs(error: unknown): error is Error {
  return error instanceof Error && error.name.endsWith("Exception");
}
