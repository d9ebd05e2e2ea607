import type { ReactNode } from "react";
import type { ExportWithProof } from "../api/client";
import { Waiting } from "../parts/notice";
import { exportAddress, useOpenedFile } from "./use-opened-file";
import { NotRead } from "../parts/not-read";

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
  const { opened, asked } = useOpenedFile(exportAddress(bookId, proof.id), open, close);
  if (asked.error) return <NotRead of={asked} />;
  if (opened === null) return <Waiting what="Opening the file" />;
  return children(opened);
}
