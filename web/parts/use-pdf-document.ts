import type { PDFDocumentProxy } from "pdfjs-dist";
import { useEffect, useState } from "react";
import { openDocument } from "./pdf-document";

/** A PDF of the server, opened; closed when it is left. @param password with which it opens; null where it needs none */
export function usePdfDocument(
  url: string,
  password: string | null = null,
): { file: PDFDocumentProxy | null; problem: string | null } {
  const [file, setFile] = useState<PDFDocumentProxy | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let isLeft = false;
    const task = openDocument({ url }, password);
    task.promise.then(
      (opened) => !isLeft && setFile(opened),
      (error: unknown) => !isLeft && setProblem((error as Error).message),
    );
    return () => {
      isLeft = true;
      void task.destroy();
    };
  }, [url, password]);
  return { file, problem };
}
