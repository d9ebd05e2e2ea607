import type { PDFDocumentProxy } from "pdfjs-dist";
import { useEffect, useState } from "react";
import type { Asked } from "./not-read";
import { openDocument } from "./pdf-document";

/** A PDF of the server, opened; closed when it is left. @param password with which it opens; null where it needs none */
export function usePdfDocument(
  url: string,
  password: string | null = null,
): { file: PDFDocumentProxy | null; asked: Asked } {
  const [file, setFile] = useState<PDFDocumentProxy | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const [tries, setTries] = useState(0);
  useEffect(() => {
    let isLeft = false;
    const task = openDocument({ url }, password);
    task.promise.then(
      (opened) => !isLeft && setFile(opened),
      (why: unknown) => !isLeft && setError(why as Error),
    );
    return () => {
      isLeft = true;
      void task.destroy();
    };
  }, [url, password, tries]);
  const refetch = (): void => {
    setError(null);
    setTries(tries + 1);
  };
  return { file, asked: { error, refetch } };
}
