import type { ReactNode } from "react";
import type { ExportWithProof } from "../api/client";
import { Problem, Waiting } from "../parts/notice";
import { exportAddress, useOpenedFile } from "./use-opened-file";

/** An exported file that is opened, with its proof. */
export function OpenedExport<T>({
  bookId,
  proof,
  open,
  close,
  children,
}: {
  bookId: string;
  proof: ExportWithProof;
  open: (bytes: Uint8Array) => Promise<T> | T;
  close?: (opened: T) => void;
  children: (opened: T) => ReactNode;
}) {
  const { opened, problem } = useOpenedFile(exportAddress(bookId, proof.id), open, close);
  if (problem) return <Problem>{problem}</Problem>;
  if (opened === null) return <Waiting what="Opening the file" />;
  return children(opened);
}
