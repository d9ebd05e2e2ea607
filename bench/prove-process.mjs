import { readChapter } from "@vennet/core/manuscript/chapter";
import { prove } from "@vennet/core/proof/prove";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import { seededBookOf } from "./seeded-book.mjs";

// Proves the PDF that it is sent, and says how long that took.
process.on("message", async ({ documents, bytes }) => {
  const book = seededBookOf(documents.map(readChapter));
  const started = performance.now();
  const reading = await readPdf(bytes);
  const { complete } = prove(book, reading);
  process.send({ ms: performance.now() - started, pages: reading.pages, complete });
});
