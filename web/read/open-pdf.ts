import { openExport } from "@vennet/core/proof/exported-folder";
import type { PDFDocumentProxy, PDFWorker } from "pdfjs-dist";
import { openDocument } from "../parts/pdf-document";
import type { ContentsEntry } from "./reader-frame";

/** An exported PDF, opened, with the files that lie beside it. */
export interface OpenPdf {
  document: PDFDocumentProxy;
  /** Of its first page, in points. */
  width: number;
  /** By their paths, as links of the PDF name them. */
  beside: ReadonlyMap<string, Uint8Array>;
  outline: OutlineEntry[];
}

export interface OutlineEntry extends ContentsEntry {
  dest: unknown;
}

/** Where a jump inside the file lands. */
export interface Landing {
  /** From 1. */
  page: number;
  /** In points from the foot of the page; null for its top. */
  y: number | null;
}

/**
 * Opens an exported file, which is a PDF or a folder in a zip whose first file is one.
 * @param password with which a saved version of a finished file opens
 * @param worker that reads it; a new one for itself where it is left out
 */
export async function openPdf(
  bytes: Uint8Array,
  password: string | null = null,
  worker: PDFWorker | null = null,
): Promise<OpenPdf> {
  const { main, beside } = openExport(bytes);
  const document = await openDocument({ data: main }, password, worker).promise;
  const { width } = (await document.getPage(1)).getViewport({ scale: 1 });
  return { document, width, beside, outline: await outlineOf(document) };
}

async function outlineOf(document: PDFDocumentProxy): Promise<OutlineEntry[]> {
  type Item = Awaited<ReturnType<PDFDocumentProxy["getOutline"]>>[number];
  const entries: OutlineEntry[] = [];
  const add = (items: Item[], depth: number): void => {
    for (const { title, dest, items: inner } of items) {
      entries.push({ words: title, depth, dest });
      add(inner as Item[], depth + 1);
    }
  };
  add((await document.getOutline()) ?? [], 0);
  return entries;
}

/** Where a destination of the file lands; null where it leads nowhere. */
export async function landingOf(document: PDFDocumentProxy, dest: unknown): Promise<Landing | null> {
  const explicit = (typeof dest === "string" ? await document.getDestination(dest) : dest) as
    unknown[] | null;
  if (!Array.isArray(explicit)) return null;
  const [target, , , y] = explicit as [unknown, unknown, unknown, unknown];
  const page =
    typeof target === "number" ? target : await document.getPageIndex(target as { num: number; gen: number });
  return { page: page + 1, y: typeof y === "number" ? y : null };
}
