import type { PDFDocumentProxy } from "pdfjs-dist";
import { useEffect, useState } from "react";
import { openDocument } from "../../parts/pdf-document";

/** The file that came, opened; closed when it is left. */
export function useFinishedFile(
  bookId: string,
  password: string | null,
): { file: PDFDocumentProxy | null; problem: string | null } {
  const [file, setFile] = useState<PDFDocumentProxy | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let isLeft = false;
    const task = openDocument({ url: `/api/books/${bookId}/finished/file` }, password);
    task.promise.then(
      (opened) => !isLeft && setFile(opened),
      (error: unknown) => !isLeft && setProblem((error as Error).message),
    );
    return () => {
      isLeft = true;
      void task.destroy();
    };
  }, [bookId, password]);
  return { file, problem };
}
