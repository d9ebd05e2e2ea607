import type { ExportWithProof } from "../api/client";
import { FlowReader } from "./flow-reader";
import { openEpub } from "./open-epub";
import { openWeb } from "./open-web";
import { OpenedExport } from "./opened-export";

interface Exported {
  bookId: string;
  proof: ExportWithProof;
}

/** An exported e-book as its readers see it. */
export function EpubExport({ bookId, proof }: Exported) {
  return (
    <OpenedExport bookId={bookId} proof={proof} open={openEpub}>
      {(file) => <FlowReader bookId={bookId} file={file} proof={proof} />}
    </OpenedExport>
  );
}

/** Exported web pages as their readers see them. */
export function WebExport({ bookId, proof }: Exported) {
  return (
    <OpenedExport bookId={bookId} proof={proof} open={openWeb}>
      {(file) => <FlowReader bookId={bookId} file={file} proof={proof} />}
    </OpenedExport>
  );
}
