import { useEffect, useState } from "react";

/** A file of the server, downloaded and opened; closed when it is left. */
export function useOpenedFile<T>(
  address: string,
  open: (bytes: Uint8Array) => Promise<T> | T,
  close?: (opened: T) => void,
): { opened: T | null; problem: string | null } {
  const [opened, setOpened] = useState<T | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    const leaving = new AbortController();
    let file: T | null = null;
    const begin = async (): Promise<void> => {
      const answer = await fetch(address, { signal: leaving.signal });
      if (!answer.ok) throw new Error(`The server did not give the file (${answer.status}).`);
      file = await open(new Uint8Array(await answer.arrayBuffer()));
      if (leaving.signal.aborted) close?.(file);
      else setOpened(file);
    };
    begin().catch((error: unknown) => {
      if (!leaving.signal.aborted) setProblem((error as Error).message);
    });
    return () => {
      leaving.abort();
      if (file !== null) close?.(file);
    };
    // A file is opened once; its ways to be opened and closed never change.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [address]);
  return { opened, problem };
}

/** Where the server gives an exported file out. */
export function exportAddress(bookId: string, exportId: string): string {
  return `/api/books/${bookId}/exports/${exportId}/file`;
}
