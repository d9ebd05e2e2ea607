import { useCallback } from "react";
import { useBook } from "../book-page";
import { openPdf, type OpenPdf } from "./open-pdf";

/** Opens PDFs that went out of the publication, with its password where it has one. */
export function useOpenPdf(): (bytes: Uint8Array) => Promise<OpenPdf> {
  const password = useBook().finished?.password ?? null;
  return useCallback((bytes) => openPdf(bytes, password), [password]);
}
