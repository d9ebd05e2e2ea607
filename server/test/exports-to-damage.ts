import type { Book } from "@vennet/core/manuscript/book";
import type { Exported } from "@vennet/core/proof/mutations/kill-table";
import { asFolder } from "@vennet/core/publish/export-folder";
import { readDocx } from "@vennet/core/publish/formats/docx/read-back";
import { writeDocx } from "@vennet/core/publish/formats/docx/write-docx";
import { readPageStarts } from "@vennet/core/publish/formats/epub/page-starts";
import { readEpub } from "@vennet/core/publish/formats/epub/read-back";
import { writeEpub } from "@vennet/core/publish/formats/epub/write-epub";
import { readMarkdown } from "@vennet/core/publish/formats/markdown/read-back";
import { writeMarkdown } from "@vennet/core/publish/formats/markdown/write-markdown";
import { readOdt } from "@vennet/core/publish/formats/odt/read-back";
import { writeOdt } from "@vennet/core/publish/formats/odt/write-odt";
import { readPdf } from "@vennet/core/publish/formats/pdf/read-back";
import { readWebPage } from "@vennet/core/publish/formats/web/read-back";
import { writeWebFolder } from "@vennet/core/publish/formats/web/web-folder";
import { writeWebPage } from "@vennet/core/publish/formats/web/web-page";
import { bookOfEveryFeature } from "@vennet/core/test/book-of-every-feature";
import { generatedBook } from "@vennet/core/test/generated-book";
import fc from "fast-check";
import { Typesetter } from "../workers/typesetter.ts";

/** Generated books. */
export function generatedBooks(count: number): Book[] {
  return fc.sample(generatedBook, { seed: 2026, numRuns: count });
}

/** The book of every feature, and some generated ones, in every format. */
export async function exportsToDamage(generated: number): Promise<Exported[]> {
  const typesetter = new Typesetter();
  const books = [bookOfEveryFeature(), ...generatedBooks(generated)];
  const all = await Promise.all(books.map((book) => exportsOf(book, typesetter)));
  return all.flat();
}

/** A book in every format, as an export writes it. */
export async function exportsOf(book: Book, typesetter: Typesetter): Promise<Exported[]> {
  const { pdf } = typesetter.write(book, true);
  const pages = { starts: await readPageStarts(pdf), source: "walks.pdf" };
  return [
    { book, format: "pdf", bytes: asFolder(book, "walks.pdf", pdf).bytes, read: readPdf },
    { book, format: "epub", bytes: writeEpub(book, { fonts: [], pages }), read: readEpub },
    { book, format: "web", bytes: asFolder(book, "walks.html", writeWebPage(book)).bytes, read: readWebPage },
    { book, format: "web", bytes: writeWebFolder(book), read: readWebPage },
    { book, format: "markdown", bytes: writeMarkdown(book, "walks.md").bytes, read: readMarkdown },
    { book, format: "odt", bytes: writeOdt(book, "walks.odt").bytes, read: readOdt },
    { book, format: "docx", bytes: (await writeDocx(book, "walks.docx")).bytes, read: readDocx },
  ];
}
