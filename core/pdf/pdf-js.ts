// The build of pdf.js for this runtime puts methods of its own in place of some that the runtime has, for cases that
// never arise here; with them, all that follows in the process takes a third longer. So the runtime's are put back.
const { push } = Array.prototype;
const { parse, stringify } = JSON;

const pdfJs = await import("pdfjs-dist/legacy/build/pdf.mjs");
// Else it is loaded with the first document, and replaces them anew.
await import("pdfjs-dist/legacy/build/pdf.worker.mjs" as string);

Array.prototype.push = push;
Object.assign(JSON, { parse, stringify });

/** pdf.js, as Mozilla's own reader of PDF has it. */
export const { getDocument, OPS, VerbosityLevel } = pdfJs;
