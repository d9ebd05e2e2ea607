import type { PDFDocumentProxy } from "pdfjs-dist/legacy/build/pdf.mjs";
import { PdfError } from "../../../pdf/errors.ts";
import { PageStructures } from "../../../pdf/page-structures.ts";
import { PdfObjects } from "../../../pdf/pdf-objects.ts";
import { PdfPageTexts, type PdfPiece } from "../../../pdf/page-text.ts";
import { openPdf } from "../../../pdf/pdf-js.ts";
import { ProofError } from "../../../proof/exported-link.ts";
import { readPage, type ReadPage } from "./read-page.ts";

/** Pages that follow each other, by their numbers, from 1. */
export interface PageRange {
  first: number;
  last: number;
}

/** Pages of a PDF as they were read: plain values, which cross from thread to thread. */
export interface PdfPagesRead {
  pages: ReadPage[];
  /** The text of each of them, in the order in which it is read. */
  pieces: PdfPiece[][];
}

/**
 * Reads some pages of a PDF at the same time as others are read.
 * @param bytes the file's own
 * @param unreachable why presses do not reach annotations, by the numbers of their objects
 * @param tell is told how many have been read
 */
export type ReadPagesElsewhere = (
  bytes: Uint8Array,
  range: PageRange,
  unreachable: ReadonlyMap<number, string>,
  tell: (read: number) => void,
) => Promise<PdfPagesRead>;

/**
 * Opens a PDF by pdf.js for one piece of work.
 * @throws ProofError `unreadable` where it cannot be opened, or an object of it cannot be read
 */
export async function withPdf<T>(
  bytes: Uint8Array,
  work: (document: PDFDocumentProxy) => Promise<T>,
): Promise<T> {
  const task = openPdf(bytes);
  let document: PDFDocumentProxy;
  try {
    document = await task.promise;
  } catch (error) {
    throw new ProofError("unreadable", `The PDF cannot be opened: ${(error as Error).message}`);
  }
  try {
    return await work(document);
  } catch (error) {
    if (error instanceof PdfError) throw new ProofError("unreadable", error.message);
    throw error;
  } finally {
    await task.destroy();
  }
}

/** Reads some pages of an open PDF; see {@link ReadPagesElsewhere}. */
export async function readPages(
  document: PDFDocumentProxy,
  texts: PdfPageTexts,
  structures: PageStructures,
  { first, last }: PageRange,
  unreachable: ReadonlyMap<number, string>,
  tell: (read: number) => void,
): Promise<ReadPage[]> {
  const pages: ReadPage[] = [];
  for (let number = first; number <= last; number++) {
    const page = await document.getPage(number);
    pages.push(await readPage(page, number, texts, structures, unreachable));
    page.cleanup();
    tell(pages.length);
  }
  return pages;
}

/** Reads some pages of a PDF that nobody has open. */
export const readPagesOfFile: ReadPagesElsewhere = (bytes, range, unreachable, tell) =>
  withPdf(bytes, async (document) => {
    const objects = new PdfObjects(bytes);
    const texts = new PdfPageTexts(document, objects);
    const pages = await readPages(document, texts, new PageStructures(objects), range, unreachable, tell);
    const pieces: PdfPiece[][] = [];
    for (let number = range.first; number <= range.last; number++)
      pieces.push((await texts.of(number)).pieces);
    return { pages, pieces };
  });
