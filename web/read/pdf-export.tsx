import type { ExportWithProof } from "../api/client";
import { useOpenPdf } from "./use-open-pdf";
import { OpenedExport } from "./opened-export";
import { PdfReader } from "./pdf-reader";

/** An exported PDF as its readers see it. */
export function PdfExport({ bookId, proof }: { bookId: string; proof: ExportWithProof }) {
  const open = useOpenPdf();
  return (
    <OpenedExport bookId={bookId} proof={proof} open={open} close={({ document }) => void document.destroy()}>
      {(pdf) => <PdfReader bookId={bookId} pdf={pdf} proof={proof} />}
    </OpenedExport>
  );
}
