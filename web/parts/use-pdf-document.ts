import type { PDFDocumentProxy } from "pdfjs-dist";
import { useEffect, useState } from "react";
import type { Asked } from "./not-read";
import { openDocument } from "./pdf-document";
import { useAsked } from "./use-asked";

/** A PDF of the server, opened; closed when it is left. @param password with which it opens; null where it needs none */
export function usePdfDocument(
  url: string,
  password: string | null = null,
): { file: PDFDocumentProxy | null; asked: Asked } {
  const [file, setFile] = useState<PDFDocumentProxy | null>(null);
  const { asked, tries, fail } = useAsked();
  useEffect(() => {
    let isLeft = false;
    const task = openDocument({ url }, password);
    task.promise.then(
      (opened) => !isLeft && setFile(opened),
      (why: unknown) => !isLeft && fail(why),
    );
    return () => {
      isLeft = true;
      void task.destroy();
    };
  }, [url, password, tries, fail]);
  return { file, asked };
}
