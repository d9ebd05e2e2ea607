import { getDocument, GlobalWorkerOptions, type PDFDocumentProxy } from "pdfjs-dist";
import { useEffect, useState } from "react";
import workerAddress from "pdfjs-dist/build/pdf.worker.min.mjs?url";

GlobalWorkerOptions.workerSrc = workerAddress;

/** The file that came, opened; closed when it is left. */
export function useFinishedFile(bookId: string): { file: PDFDocumentProxy | null; problem: string | null } {
  const [file, setFile] = useState<PDFDocumentProxy | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let isLeft = false;
    const task = getDocument({ url: `/api/books/${bookId}/finished/file`, isEvalSupported: false });
    task.promise.then(
      (opened) => !isLeft && setFile(opened),
      (error: unknown) => !isLeft && setProblem((error as Error).message),
    );
    return () => {
      isLeft = true;
      void task.destroy();
    };
  }, [bookId]);
  return { file, problem };
}
